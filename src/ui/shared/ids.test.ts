import { describe, expect, it } from "vitest";
import { name } from "@/core/project/schema-atoms";
import { freeLabel } from "./ids";

describe("a free label", () => {
  it("is the label itself, or the first number behind it that nothing has, whatever the case", () => {
    expect(freeLabel("New board", [])).toBe("New board");
    expect(freeLabel("New board", ["new BOARD", "New board 2"])).toBe("New board 3");
    expect(freeLabel("constructor", ["constructor"])).toBe("constructor 2");
  });

  it("is never longer than a name may be, nor one that is taken, nor ends in half a character", () => {
    const long = `${"a".repeat(116)}😀 copy`;
    const taken: string[] = [];
    for (let i = 0; i < 12; i++) {
      const label = freeLabel(long, taken);
      expect(taken).not.toContain(label);
      expect(name.parse(label)).toBe(label);
      expect(label.isWellFormed()).toBe(true);
      taken.push(label);
    }
    expect(taken[0]).toBe(`${"a".repeat(116)}😀 c`);
    expect(taken[1]).toBe(`${"a".repeat(116)}😀 2`);
    expect(taken[11]).toBe(`${"a".repeat(116)} 12`);
  });
});
