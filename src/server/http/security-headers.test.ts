import { describe, expect, it } from "vitest";
import { headersFor } from "./security-headers";

const policyOf = (address: string) => headersFor(address, false)["content-security-policy"];

describe("the policy of an answer", () => {
  it("lets a picture that is opened by its own address have its styles and what it carries, and nothing else", () => {
    for (const address of [
      "/api/projects/p1/visuals/by-route.svg",
      "/api/projects/p1/visuals/by-route.svg?fonts=1&width=400",
      "/api/projects/p1/picture?theme=night",
    ]) {
      expect(policyOf(address), address).toContain("default-src 'none'");
      expect(policyOf(address), address).toContain("style-src 'unsafe-inline'");
      expect(policyOf(address), address).toContain("font-src data:");
      expect(policyOf(address), address).not.toContain("script-src");
    }
  });

  it("lets nothing run or load in other answers, whatever their address ends in", () => {
    for (const address of [
      "/api/projects/p1/visuals/by-route.json?x=.svg",
      "/api/projects/p1/visuals/a.svg/rows",
      "/api/projects/p1/pictures",
      "/api/health?picture",
    ])
      expect(policyOf(address), address).toBe("default-src 'none'; frame-ancestors 'none'");
  });

  it("lets pages run only what carries their own nonce, another each time", () => {
    const [first, second] = [policyOf("/p/p1/present/b"), policyOf("/p/p1/present/b")];
    expect(first).toMatch(/script-src 'self' 'nonce-[^']+' 'strict-dynamic';/);
    expect(first).not.toBe(second);
    expect(first).not.toContain("unsafe-eval");
    expect(headersFor("/p/p1/hand-off/preview?e=1", false)["x-frame-options"]).toBe("SAMEORIGIN");
    expect(policyOf("/p/p1/hand-off/previews")).toContain("frame-ancestors 'none'");
  });
});
