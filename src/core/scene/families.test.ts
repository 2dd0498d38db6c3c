import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { FAMILIES, fontStack, furtherFamilies } from "./families";

describe("the families that a picture's texts are written in", () => {
  it("are the chosen one alone where it has every sign", () => {
    for (const { id, css } of FAMILIES)
      expect(fontStack(id, ["North Quay", "São Roque, 12 %", "▲ −3"])).toBe(css);
  });
  it("come before those of the scripts that it lacks, and the platform's last", () => {
    expect(fontStack("source serif", ["Пристань"])).toBe(
      "'Source Serif 4 Variable', 'Source Serif 4', 'Noto Sans', 'Noto Sans Arabic', 'Noto Sans Hebrew', serif",
    );
  });
  it.each([
    ["港", "Noto Sans SC"],
    ["港 みなと", "Noto Sans JP"],
    ["항구 港", "Noto Sans KR"],
  ])("begin for %s with those whose ideographs it is written with", (text, first) => {
    expect(furtherFamilies([text]).find((f) => /Noto Sans [A-Z]{2}$/.test(f))).toBe(first);
  });
  it("are found for any text, half characters too", () => {
    fc.assert(
      fc.property(fc.array(fc.string({ unit: "binary" })), (texts) => {
        const stack = fontStack("archivo", texts);
        expect(stack.startsWith("'Archivo Variable', Archivo, ")).toBe(true);
        expect(stack.endsWith(", sans-serif")).toBe(true);
      }),
    );
  });
});
