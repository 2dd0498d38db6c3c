import { describe, expect, it } from "vitest";
import { refusal } from "./door";
import { attachment } from "./download";

const ask = (headers: Record<string, string>, method = "GET", url = "/") => refusal({ headers, method, url }, "127.0.0.1")?.code ?? null;

describe("the door", () => {
  it("opens to its own addresses", () => {
    expect(ask({ host: "127.0.0.1:4517" })).toBeNull();
    expect(ask({ host: "localhost:4517" })).toBeNull();
    expect(ask({ host: "[::1]:4517" })).toBeNull();
    expect(ask({ host: "127.0.0.1:4517", origin: "http://127.0.0.1:4517" }, "PUT")).toBeNull();
  });
  it("stays shut for other hosts, other origins and unsound addresses", () => {
    expect(ask({ host: "evil.example" })).toBe("bad_host");
    expect(ask({})).toBe("bad_host");
    expect(ask({ host: "127.0.0.1:4517", origin: "http://evil.example" }, "POST")).toBe("bad_origin");
    expect(ask({ host: "127.0.0.1:4517", origin: "http://127.0.0.1:9999" }, "DELETE")).toBe("bad_origin");
    expect(ask({ host: "127.0.0.1:4517", origin: "null" }, "PUT")).toBe("bad_origin");
    expect(ask({ host: "127.0.0.1:4517" }, "GET", "/p/%E0%A4%A")).toBe("bad_address");
  });
});

it("a download's name cannot break its header", () => {
  const { "content-disposition": header } = attachment('Año "x"\r\nset-cookie: a=1/..\\..');
  expect(header).not.toMatch(/[\r\n]/);
  expect(header).toContain("filename*=UTF-8''A%C3%B1o");
});
