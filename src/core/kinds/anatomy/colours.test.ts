import { describe, expect, it } from "vitest";
import { visualOf } from "../../../testing/craft/cases";
import {
  CATEGORIES,
  keyAt,
  sampleData,
  seriesData,
  seriesKeyAt,
  VALUES,
} from "../../../testing/craft/sample-data";
import type { Visual } from "../../project/schema";
import type { DrawnRule } from "../../rows/visual-data";
import { THEMES } from "../../scene/colour";
import type { Scene } from "../../scene/marks";
import { colourDistance } from "../../scene/sight";
import { sceneOf } from "../../view/picture";
import { ruleHolds } from "./colours";

const rule = (more: Partial<DrawnRule>): DrawnRule => ({
  measure: null,
  when: "below",
  than: 0,
  word: "w",
  color: "#aa0000",
  symbol: "none",
  at: 0,
  ...more,
});
const fillOf = (scene: Scene, id: string) => scene.marks.find((m) => m.id === id)?.fill;
const bars = (
  { rules, ...more }: Partial<Omit<Visual, "rules">> & { rules?: DrawnRule[] },
  dials: Visual["dials"] = {},
) => sceneOf(visualOf("rounded bars", dials, more), sampleData(VALUES, rules ? { rules } : {}));

describe("colours", () => {
  it("a rule holds below its limit, from it on, or where the value is the one it names; nothing fulfils no rule", () => {
    expect([-1, 0, 1].map((v) => ruleHolds(rule({ when: "below" }), v, 0))).toEqual([true, false, false]);
    expect([-1, 0, 1].map((v) => ruleHolds(rule({ when: "from" }), v, 0))).toEqual([false, true, true]);
    expect(["Good", "bad", null].map((v) => ruleHolds(rule({ when: "is" }), v, "good"))).toEqual([
      true,
      false,
      false,
    ]);
    expect(
      ["below", "from", "is"].map((when) => ruleHolds(rule({ when: when as DrawnRule["when"] }), null, 5)),
    ).toEqual([false, false, false]);
  });

  it("the first rule that holds gives the colour; its word is in the legend and in the description", () => {
    const rules = [
      rule({ when: "from", than: 300_000, word: "strong", color: "#004400" }),
      rule({ when: "from", than: 100_000, word: "fair", color: "#444400" }),
      rule({ when: "from", than: 999_999, word: "never" }),
    ];
    const scene = bars({ rules }, { "colours.by": "rule" });
    expect([0, 1, 5].map((i) => fillOf(scene, `bar:${keyAt(i)}`))).toEqual([
      "#004400",
      "#444400",
      THEMES.light.other,
    ]);
    const texts = scene.marks.flatMap((m) => (m.type === "text" ? [m.text] : []));
    expect(texts).toEqual(expect.arrayContaining(["strong", "fair"]));
    expect(texts).not.toContain("never");
    expect(scene.description).toContain(
      `By rule: strong: ${CATEGORIES[0]}; fair: ${CATEGORIES.slice(1, 4).join(", ")}.`,
    );
  });

  it("a limit of each row's own goes before that of all; where it is nothing the rule does not hold", () => {
    const rules = [rule({ when: "from", than: null, word: "met", color: "#004400" })];
    const limits = [[300_000], [300_000], [null], [undefined], [80_000], [1]];
    const rows = sampleData(VALUES).rows.map((r, i) => ({ ...r, limits: limits[i] }));
    const scene = sceneOf(
      visualOf("rounded bars", { "colours.by": "rule" }),
      sampleData(VALUES, { rules, rows }),
    );
    const met = rows.map((r) => fillOf(scene, `bar:${r.key}`) === "#004400");
    expect(met).toEqual([true, false, false, false, true, true]);
  });

  it("a category's own colour goes before the palette, and Other has a quiet one", () => {
    const data = sampleData(VALUES);
    const rows = data.rows.map((r, i) => (i === 5 ? { ...r, label: "Other", groups: 9 } : r));
    const scene = sceneOf(visualOf("donut", {}, { categoryColours: { [CATEGORIES[1]]: "#123456" } }), {
      ...data,
      rows,
    });
    expect(fillOf(scene, `slice:${keyAt(1)}`)).toBe("#123456");
    expect(fillOf(scene, `slice:${keyAt(5)}`)).toBe(THEMES.light.other);
  });

  it("a ramp deepens with the value, and a series of one colour has shades that differ", () => {
    const ramp = bars({}, { "colours.by": "ramp", "colours.palette": "tide" });
    expect(new Set(VALUES.map((_, i) => fillOf(ramp, `bar:${keyAt(i)}`))).size).toBe(VALUES.length);
    const stack = sceneOf(visualOf("capsule stack"), seriesData([[1, 2, 3, 4]]));
    expect(
      new Set([0, 1, 2, 3].map((k) => fillOf(stack, `segment:${keyAt(0)}:${seriesKeyAt(k)}`))).size,
    ).toBe(4);
  });

  it("one colour is the palette's first, or the one that was set", () => {
    expect(fillOf(bars({}), `bar:${keyAt(3)}`)).toBe("#1f7a6d");
    expect(fillOf(bars({}, { "colours.one": "#334455" }), `bar:${keyAt(3)}`)).toBe("#334455");
  });

  it("a ramp begins at zero, so that near values have near colours", () => {
    const dials = { "colours.by": "ramp" } as const;
    const near = sceneOf(visualOf("rounded bars", dials), sampleData([1020, 989]));
    const far = sceneOf(visualOf("rounded bars", dials), sampleData([1020, 120]));
    const apart = (scene: Scene) =>
      colourDistance(String(fillOf(scene, `bar:${keyAt(0)}`)), String(fillOf(scene, `bar:${keyAt(1)}`)));
    expect(apart(near)).toBeLessThan(0.03);
    expect(apart(far)).toBeGreaterThan(0.15);
  });
});
