import { describe, expect, it } from "vitest";
import { palettesFrom, tokensOf } from "./design-tokens";
import { PALETTES } from "./palettes";

let next = 0;
const read = (value: unknown) =>
  palettesFrom(typeof value === "string" ? value : JSON.stringify(value), () => `p${next++}`);

describe("design tokens", () => {
  it("what goes out comes back: names, types, light and night", () => {
    const back = read(tokensOf([]));
    if (!("palettes" in back)) throw new Error(back.problem);
    expect(back.palettes.map(({ id: _, ...p }) => p)).toEqual(PALETTES.map(({ id: _, ...p }) => p));
  });

  it("reads the forms that a colour may have, inherited types and references", () => {
    const back = read({
      brand: {
        $type: "color",
        sea: { $value: "#1F7A6D" },
        sand: { $value: { colorSpace: "srgb", components: [0.8, 0.5, "none"] } },
        again: { $value: "{brand.sea}" },
        short: { $value: "#abc" },
        space: { $value: { colorSpace: "oklch", components: [0.5, 0.1, 20], hex: "#804050" } },
        lost: { $value: "{brand.nowhere}" },
        circle: { $value: "{brand.circle}" },
      },
      spacing: { $type: "dimension", small: { $value: "4px" }, large: { $value: "8px" } },
    });
    expect(back).toMatchObject({
      palettes: [
        {
          name: "brand",
          type: "categorical",
          light: ["#1f7a6d", "#cc8000", "#1f7a6d", "#aabbcc", "#804050"],
        },
      ],
    });
  });

  it("says what is wrong with a file that has no palette", () => {
    expect(read("not json")).toMatchObject({ problem: expect.stringContaining("no JSON") });
    expect(read({ a: { $type: "color", one: { $value: "#112233" } } })).toMatchObject({
      problem: expect.stringContaining("two colours"),
    });
    expect(read([])).toHaveProperty("problem");
  });
});
