import { describe, expect, it } from "vitest";
import { casesOf, visualOf } from "../../testing/craft/cases";
import { faults, markBox } from "../../testing/craft/faults";
import { KINDS } from "../kinds";
import { sceneOf } from "../view/picture";
import { THEMES } from "./colour";
import type { Mark } from "./marks";
import { scaledScene } from "./scaled";

const FRAME = { width: 320, height: 240 };
const cases = KINDS.flatMap(({ id }) =>
  ["plain", "embossed", "dashed"].flatMap((finish) =>
    casesOf(id)
      .slice(0, 8)
      .map(({ name, data, dials, look }) => ({
        name: `${id}, ${finish}, ${name}`,
        scene: sceneOf(visualOf(id, dials, { finish, ...look }), data, undefined, { size: FRAME }),
      })),
  ),
);

/** The numbers of a mark that are no pixels. */
const without = ({ opacity, shows, datum, ...mark }: Mark) =>
  JSON.stringify({ opacity, shows, datum, id: mark.id });

describe("a scene made larger", () => {
  it("has every mark at the same place of a larger frame, and says the same", () => {
    for (const { name, scene } of cases) {
      const large = scaledScene(scene, 2.5);
      expect([large.width, large.height], name).toEqual([800, 600]);
      expect(large.description).toBe(scene.description);
      for (const [i, mark] of scene.marks.entries()) {
        const [was, is] = [markBox(mark), markBox(large.marks[i])];
        for (const side of ["left", "right", "top", "bottom"] as const)
          expect(is[side], `${name}: ${mark.id}`).toBeCloseTo(was[side] * 2.5, 6);
        expect(without(large.marks[i])).toBe(without(mark));
      }
    }
  });

  it("has no fault that it did not have before, and is itself at its own size", () => {
    const [{ scene }] = cases;
    expect(scaledScene(scene, 1)).toBe(scene);
    for (const { name, scene } of cases.filter((_, i) => i % 7 === 0))
      expect(faults(scaledScene(scene, 2), scene.background ?? THEMES[scene.theme].sheet), name).toEqual([]);
  });

  it("is what a visual is that grows with its tile: larger than it was made for, never smaller", () => {
    const visual = { ...visualOf("donut", { "frame.grow": "grow" }), size: FRAME };
    const { data } = casesOf("donut")[0];
    const at = (width: number, height: number) =>
      sceneOf(visual, data, undefined, { size: { width, height } });
    const title = (width: number, height: number) =>
      at(width, height).marks.flatMap((m) => (m.type === "text" && m.id === "title0" ? m.size : []))[0];
    expect(title(640, 480)).toBeCloseTo(2 * title(320, 240));
    expect(title(640, 240)).toBeCloseTo(title(320, 240));
    expect(at(200, 150)).toEqual(
      sceneOf({ ...visual, dials: {} }, data, undefined, { size: { width: 200, height: 150 } }),
    );
    expect([at(640, 500).width, at(640, 500).height]).toEqual([640, 500]);
  });
});
