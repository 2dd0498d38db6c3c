import {
  differenceEuclidean,
  filterDeficiencyDeuter,
  filterDeficiencyProt,
  filterDeficiencyTrit,
} from "culori";
import { describe, expect, it } from "vitest";
import { contrast, THEMES, textOn } from "./colour";
import { MOST_COLOURS, PALETTES, paletteColour, paletteOf, rampColour } from "./palettes";
import { leastDistance, SIGHTS as SEEN, seenAs } from "./sight";

const distance = differenceEuclidean("oklab");
type See = (colour: string) => string;
const SIGHTS: Record<string, See> = {
  all: (c) => c,
  protanopia: filterDeficiencyProt(1) as unknown as See,
  deuteranopia: filterDeficiencyDeuter(1) as unknown as See,
  tritanopia: filterDeficiencyTrit(1) as unknown as See,
};
const CASES = PALETTES.flatMap((p) =>
  (["light", "night"] as const).map((theme) => [`${p.name}, ${theme}`, p, theme] as const),
);

describe("shipped palettes", () => {
  it("are at least six, of all three types", () => {
    expect(PALETTES.length).toBeGreaterThanOrEqual(6);
    expect(new Set(PALETTES.map((p) => p.type)).size).toBe(3);
  });

  it.each(CASES.filter(([, p]) => p.type === "categorical"))(
    "%s: shapes stand out from the sheet, and can be told apart by every sight",
    (_, palette, theme) => {
      const colours = palette[theme];
      for (const c of colours) expect(contrast(c, THEMES[theme].sheet), c).toBeGreaterThanOrEqual(3);
      for (const [sight, see] of Object.entries(SIGHTS))
        for (const [i, a] of colours.entries())
          for (const b of colours.slice(i + 1))
            expect(distance(see(a), see(b)), `${a} and ${b}, ${sight}`).toBeGreaterThan(0.055);
    },
  );

  it.each(CASES.filter(([, p]) => p.type === "categorical"))(
    "%s: none of its colours is taken for another by the review of a first visual",
    (_, palette, theme) => {
      for (const [i, a] of palette[theme].entries())
        for (const b of palette[theme].slice(i + 1))
          for (const sight of Object.keys(SEEN) as (keyof typeof SEEN)[])
            expect(distance(seenAs(a, sight), seenAs(b, sight)), `${a} and ${b}, ${sight}`).toBeGreaterThan(
              0.045,
            );
    },
  );

  it.each(CASES.filter(([, p]) => p.type === "sequential"))(
    "%s: each step is told from the one before by its lightness alone",
    (_, palette, theme) => {
      const sheet = THEMES[theme].sheet;
      const steps = [0, 0.25, 0.5, 0.75, 1].map((s) => contrast(rampColour(palette, theme, s), sheet));
      for (let i = 1; i < steps.length; i++)
        expect(steps[i] / steps[i - 1], `step ${i}`).toBeGreaterThan(1.12);
      expect(steps[0]).toBeGreaterThan(1.45);
      expect(steps[4]).toBeGreaterThan(4.5);
    },
  );

  it.each(CASES.filter(([, p]) => p.type === "diverging"))(
    "%s: its two ends are told apart by every sight, and its middle is the quietest",
    (_, palette, theme) => {
      const [low, middle, high] = [0, 0.5, 1].map((s) => rampColour(palette, theme, s));
      for (const [sight, see] of Object.entries(SIGHTS))
        expect(distance(see(low), see(high)), sight).toBeGreaterThan(0.1);
      const sheet = THEMES[theme].sheet;
      expect(contrast(middle, sheet)).toBeLessThan(Math.min(contrast(low, sheet), contrast(high, sheet)));
    },
  );

  it("text on any of their colours reads", () => {
    for (const [name, palette, theme] of CASES)
      for (let i = 0; i < 20; i++) {
        const c = paletteColour(palette, theme, i, 20, THEMES[theme].sheet);
        expect(contrast(c, textOn(c)), `${name} ${c}`).toBeGreaterThanOrEqual(4.5);
      }
  });

  it.each(CASES.filter(([, p]) => p.type === "categorical"))(
    "%s: past the last colour come shades that are told apart, and past those one colour for all others",
    (_, palette, theme) => {
      const { sheet, other } = THEMES[theme];
      const colours = Array.from({ length: MOST_COLOURS }, (_, i) =>
        paletteColour(palette, theme, i, 40, sheet),
      );
      for (const [i, a] of colours.entries()) {
        expect(contrast(a, sheet), a).toBeGreaterThanOrEqual(3);
        for (const b of colours.slice(0, i)) expect(distance(a, b), `${a} ${b}`).toBeGreaterThan(0.04);
      }
      const further = paletteColour(palette, theme, MOST_COLOURS, 40, sheet);
      expect(paletteColour(palette, theme, MOST_COLOURS + 9, 40, sheet)).toBe(further);
      expect(contrast(further, sheet)).toBeGreaterThanOrEqual(3);
      // None of them is taken for Other, or for one that has a colour of its own.
      expect(distance(further, other)).toBeGreaterThan(0.08);
      for (const colour of colours) expect(distance(further, colour), colour).toBeGreaterThan(0.03);
    },
  );

  it("no colour past those of a palette is near black, and none is taken for another by whoever sees it", () => {
    for (const palette of PALETTES.filter((p) => p.type === "categorical"))
      for (const theme of ["light", "night"] as const) {
        const all = Array.from({ length: 14 }, (_, i) =>
          paletteColour(palette, theme, i, 14, THEMES[theme].sheet),
        );
        for (const [i, a] of all.entries()) {
          if (i >= palette[theme].length) expect(distance(a, "#000000"), a).toBeGreaterThan(0.2);
          if (i >= palette[theme].length)
            for (const b of all.slice(0, i)) expect(leastDistance(a, b), `${a} ${b}`).toBeGreaterThan(0.02);
        }
      }
  });

  it("an unknown palette is the first one", () => {
    expect(paletteOf("nowhere")).toBe(PALETTES[0]);
  });
});
