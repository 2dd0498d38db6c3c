import { describe, expect, it } from "vitest";
import { KINDS } from "../../core/kinds";
import type { VisualData } from "../../core/rows/visual-data";
import { THEMES } from "../../core/scene/colour";
import type { Mark } from "../../core/scene/marks";
import { sceneOf } from "../../core/view/picture";
import { trialsOf } from "../../core/view/trials";
import { COURSE, casesOf, visualOf } from "./cases";
import { faults } from "./faults";
import { misnamed } from "./named";
import { sampleData } from "./sample-data";
import { miscoloured, unshown } from "./shown";
import { lies } from "./truth";

// What a visual may meet one day, and what a filter leaves of its rows, is drawn as cleanly as what it has.

/** What filters leave of a value, step by step, on a scale that stands still. */
function narrowed(data: VisualData): { label: string; data: VisualData }[] {
  const [row] = data.rows;
  if (data.rows.length !== 1 || row.value === null) return [];
  const { value } = row;
  const atRest = { total: value, target: data.target, values: [value], second: [], targets: [] };
  return [1, 0.63, 0.11, 0.004, 0].map((share) => {
    const total = value * share;
    const written = { value: total, format: data.format };
    const names = { ...data.names, value: written, total: written };
    return {
      label: `${share} of it`,
      data: { ...data, atRest, total, names, rows: [{ ...row, value: total }] },
    };
  });
}

const SIZE = { width: 320, height: 240 };

describe.each(KINDS.map((k) => k.id))("%s", (id) => {
  const named = ["a plain value", "six categories", "long names", "averages", "four by four"];
  const cases = casesOf(id).filter((c) => named.includes(c.name));
  const datas = id === "number" ? [{ name: "a course", data: COURSE, dials: {} }, ...cases] : cases;
  it.each(["plain", "embossed", "dashed"])("holds in its trials and under filters, finish %s", (finish) => {
    const wrong = datas.flatMap(({ name, data, dials }) => {
      const split = data.splitLabel === null && id !== "number" ? null : { column: "route" };
      const visual = visualOf(id, dials, { finish, split });
      const filtered = [1, 2, 3].map((n) => ({
        label: `only ${n}`,
        data: { ...data, rows: data.rows.filter((_, i) => i % (n + 1) === 0) },
      }));
      return [...trialsOf(visual, data), ...filtered, ...narrowed(data)].flatMap(({ label, data: now }) => {
        const scene = sceneOf(visual, now, undefined, { size: SIZE });
        const found = [
          ...faults(scene, scene.background ?? THEMES[scene.theme].sheet),
          ...lies(visual, now, scene),
          ...unshown(visual, now, scene),
          ...miscoloured(visual, now, scene, { size: SIZE }),
          ...misnamed(now, scene),
        ];
        return found.length ? [`${name}, ${label}: ${found.slice(0, 2).join("; ")}`] : [];
      });
    });
    expect(wrong.slice(0, 8)).toEqual([]);
  });
});

describe("a gauge under a series of filters", () => {
  it("keeps its ends and its zones, and moves its needle alone", () => {
    const data: VisualData = { ...sampleData([10_000]), title: "", subtitle: "" };
    const drawn = narrowed(data).map(({ data: now }) => sceneOf(visualOf("gauge"), now));
    const still = drawn.map(({ marks }) =>
      marks.filter((m) => m.part === "scale" || m.id.startsWith("zone") || m.id.startsWith("track")),
    );
    expect(still[0].length).toBeGreaterThan(1);
    for (const marks of still) expect(marks.map(shapeOf)).toEqual(still[0].map(shapeOf));
    const needles = drawn.map(({ marks }) =>
      JSON.stringify(marks.filter((m) => m.part === "needle").map(shapeOf)),
    );
    expect(new Set(needles).size).toBe(needles.length);
  });
});
/** A mark without what it says when it is pointed at. */
const shapeOf = ({ datum: _, shows: __, ...shape }: Mark) => shape;
