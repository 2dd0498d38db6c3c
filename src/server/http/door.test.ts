import { describe, expect, it } from "vitest";
import { refusal } from "./door";
import { attachment } from "./download";

const ask = (headers: Record<string, string>, method = "GET", url = "/", more: string[] = []) =>
  refusal({ headers, method, url, rawHeaders: [...Object.entries(headers).flat(), ...more] }, "127.0.0.1")
    ?.code ?? null;

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
    expect(ask({ host: "127.0.0.1:4517" }, "GET", "/", ["Host", "127.0.0.1:4517"])).toBe("bad_host");
    expect(ask({ host: "127.0.0.1:4517", "sec-fetch-site": "cross-site" }, "POST")).toBe("bad_origin");
    expect(ask({ host: "127.0.0.1:4517", "sec-fetch-site": "same-site" }, "POST")).toBe("bad_origin");
    expect(ask({ host: "127.0.0.1:4517", "sec-fetch-site": "same-origin" }, "POST")).toBeNull();
    expect(ask({ host: "127.0.0.1:4517", "sec-fetch-site": "cross-site" }, "GET")).toBeNull();
    for (const method of ["TRACE", "CONNECT", "OPTIONS", "PATCH", "PROPFIND", "x"])
      expect(ask({ host: "127.0.0.1:4517" }, method)).toBe("bad_method");
  });
});

it("a download's name cannot break its header", () => {
  const { "content-disposition": header } = attachment('Año "x"\r\nset-cookie: a=1/..\\..');
  expect(header).not.toMatch(/[\r\n]/);
  expect(header).toContain("filename*=UTF-8''A%C3%B1o");
});
