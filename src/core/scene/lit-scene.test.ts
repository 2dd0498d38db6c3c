import { expect, it } from "vitest";
import { casesOf, visualOf } from "../../testing/craft/cases";
import { KINDS } from "../kinds";
import { sceneOf } from "../view/picture";
import { litScene } from "./lit-scene";

it("outlines what a part draws, and leaves all else as it is, in every kind", () => {
  for (const { id } of KINDS) {
    const { data } = casesOf(id)[0];
    const scene = sceneOf(visualOf(id, {}), data);
    for (const part of new Set(scene.marks.map((m) => m.part))) {
      const lit = litScene(scene, part);
      expect(lit.marks.slice(0, scene.marks.length), `${id} ${part}`).toEqual(scene.marks);
      const outlines = lit.marks.slice(scene.marks.length);
      expect(outlines.length, `${id} ${part}`).toBeGreaterThan(0);
      for (const mark of outlines)
        expect([mark.part, mark.fill, mark.stroke !== undefined, mark.type === "text"]).toEqual([
          part,
          undefined,
          true,
          false,
        ]);
      expect(new Set(lit.marks.map((m) => m.id)).size).toBe(lit.marks.length);
    }
    expect(litScene(scene, null)).toBe(scene);
    expect(litScene(scene, "no such part")).toBe(scene);
  }
});
