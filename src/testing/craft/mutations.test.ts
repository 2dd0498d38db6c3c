import { describe, expect, it } from "vitest";
import { KINDS, kindOf } from "../../core/kinds";
import { FINISHES } from "../../core/kinds/finishes";
import type { Visual } from "../../core/project/schema";
import { categoryKey } from "../../core/rows/row-key";
import type { VisualData } from "../../core/rows/visual-data";
import { THEMES } from "../../core/scene/colour";
import type { Mark, Scene, Text } from "../../core/scene/marks";
import { sceneOf } from "../../core/view/picture";
import { COURSE, casesOf, visualOf } from "./cases";
import { faults } from "./faults";
import { miscoloured, unshown } from "./shown";
import { lies } from "./truth";

// A check that finds nothing has proved nothing: each drawing is damaged in five ways, and each must be
// reported by the name of what was damaged.

const size = { width: 420, height: 320 };
const checked = (visual: Visual, data: VisualData, scene: Scene) => [
  ...faults(scene, scene.background ?? THEMES[scene.theme].sheet),
  ...lies(visual, data, scene),
  ...unshown(visual, data, scene),
  ...miscoloured(visual, data, scene, { size }),
];

/** A plain drawing of a kind in which every row has a mark and a colour of its own. */
function plainCase(kind: string): { data: VisualData; dials: Visual["dials"] } {
  if (kind === "number") return { data: COURSE, dials: { "spark.form": "bars" } };
  if (kind === "gauge") return { data: caseOf(kind, "a plain value"), dials: {} };
  return { data: caseOf(kind, "six categories"), dials: { "colours.by": "category" } };
}
function caseOf(kind: string, name: string): VisualData {
  const found = casesOf(kind as Parameters<typeof casesOf>[0]).find((c) => c.name === name);
  if (!found) throw new Error(`${kind} has no case “${name}”`);
  return found.data;
}

const withMarks = (scene: Scene, change: (mark: Mark) => Mark | null): Scene => ({
  ...scene,
  marks: scene.marks.flatMap((m) => change(m) ?? []),
});
const shapeOf = (scene: Scene, row: string) =>
  scene.marks.find((m) => m.shows?.row === row && m.type !== "text");

describe.each(KINDS.map((k) => [k.id, k] as const))("damage to a %s is reported", (id) => {
  it.each(FINISHES.map((f) => [f.name, f.id] as const))("in the finish %s", (_, finish) => {
    const { data, dials } = plainCase(id);
    const visual = visualOf(id, dials, { finish });
    const scene = sceneOf(visual, data, undefined, { size });
    expect(checked(visual, data, scene)).toEqual([]);
    // The largest that is not past its goal, where it would be held at the end of the scale.
    const inside = data.rows.filter(
      (r) => r.value !== null && (data.target === null || r.value < data.target),
    );
    const largest = inside.reduce((a, b) => ((b.value ?? 0) > (a.value ?? 0) ? b : a));
    const [first, second] = data.rows;
    const named = (found: string[]) => expect(found.join("; ")).toContain(largest.label);

    // A mark is dropped.
    named(
      checked(
        visual,
        data,
        withMarks(scene, (m) => (m.shows?.row === largest.key ? null : m)),
      ),
    );

    // A mark is renamed: it shows a row that is none.
    const renamed = withMarks(scene, (m) =>
      m.shows?.row === largest.key ? { ...m, shows: { ...m.shows, row: categoryKey("nobody") } } : m,
    );
    expect(checked(visual, data, renamed).join("; ")).toContain("nobody");

    // The colours of two rows are swapped.
    const [a, b] = [first, second].map((r) => r && shapeOf(scene, r.key));
    const paint = (mark: Mark) => JSON.stringify([mark.fill, mark.stroke]);
    if (a && b && paint(a) !== paint(b)) {
      const marksOf = (row: string) => scene.marks.filter((mark) => mark.shows?.row === row);
      const painted = (mark: Mark, own: string, other: string) => {
        const [mine, theirs] = [marksOf(own), marksOf(other)];
        const like = theirs[mine.indexOf(mark) % theirs.length];
        return { ...mark, fill: like.fill, stroke: like.stroke } as Mark;
      };
      const swapped = withMarks(scene, (mark) => {
        if (mark.shows?.row === first.key) return painted(mark, first.key, second.key);
        return mark.shows?.row === second.key ? painted(mark, second.key, first.key) : mark;
      });
      const found = checked(visual, data, swapped).join("; ");
      expect(found, "colours").toContain(`${first.label} is not in its colour`);
      expect(found, "colours").toContain(`${second.label} is not in its colour`);
    } else expect(kindOf(id).ownColours, "colours").toBe(true);

    // A text is moved onto another.
    const texts = scene.marks.filter((m): m is Text => m.type === "text");
    const [under, moved] = [texts[0], texts[texts.length - 1]];
    const piled = withMarks(scene, (m) =>
      m === moved ? { ...moved, x: under.x, y: under.y, align: under.align } : m,
    );
    expect(faults(piled, THEMES.light.sheet).join("; "), "texts").toContain(`“${moved.text}” lies on`);
  });
});

describe.each(KINDS.map((k) => [k.id, k] as const))(
  "a value that a %s draws three percent too large is reported",
  (id) => {
    it.each(FINISHES.map((f) => [f.name, f.id] as const))("in the finish %s", (_, finish) => {
      // Cells are counted, so that one value against its goal tells more than many parts.
      const { data, dials } =
        id === "waffle" ? { data: caseOf(id, "a plain value"), dials: {} } : plainCase(id);
      const visual = visualOf(id, dials, { finish });
      const scene = sceneOf(visual, data, undefined, { size });
      const inside = data.rows.filter(
        (r) => r.value !== null && (data.target === null || r.value < data.target),
      );
      const largest = inside.reduce((a, b) => ((b.value ?? 0) > (a.value ?? 0) ? b : a));
      const truly = (largest.value ?? 0) / 1.03;
      const real: VisualData = {
        ...data,
        total: data.rows.length === 1 ? truly : data.total,
        rows: data.rows.map((r) => (r === largest ? { ...r, value: truly } : r)),
      };
      // What the marks say is wrong, but not their shape.
      expect(unshown(visual, real, scene).join("; ")).toContain(`the mark of ${largest.label}`);
      // What the marks say is right, but not their shape.
      const enlarged = withMarks(scene, (m) =>
        m.shows?.row === largest.key && m.shows.value === largest.value
          ? { ...m, shows: { ...m.shows, value: truly } }
          : m,
      );
      expect(unshown(visual, real, enlarged)).toEqual([]);
      expect(lies(visual, real, enlarged).join("; ")).not.toBe("");
    });
  },
);
