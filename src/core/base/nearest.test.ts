import { describe, expect, it } from "vitest";
import { nearestName } from "./nearest";

describe("the name that was meant", () => {
  const known = ["passengers", "seats", "delay", "revenue", "route"];
  it("is the one with the fewest letters to change, whatever the case", () => {
    expect(nearestName("pasengers", known)).toBe("passengers");
    expect(nearestName("SAETS", known)).toBe("seats");
    expect(nearestName("ruote", known)).toBe("route");
    expect(nearestName("delays", known)).toBe("delay");
  });

  it("is one that begins so, once three letters are there", () => {
    expect(nearestName("rev", known)).toBe("revenue");
    expect(nearestName("pas", known)).toBe("passengers");
    expect(nearestName("re", known)).toBeNull();
  });

  it("is none where none is near, or there are none", () => {
    expect(nearestName("constructor", known)).toBeNull();
    expect(nearestName("xyz", known)).toBeNull();
    expect(nearestName("seats", [])).toBeNull();
    expect(nearestName("a", ["b"])).toBe("b");
    expect(nearestName("ab", ["cd"])).toBeNull();
    expect(nearestName("__proto_", ["__proto__", "proto"])).toBe("__proto__");
  });
});
