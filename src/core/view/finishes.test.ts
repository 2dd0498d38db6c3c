import { describe, expect, it } from "vitest";
import { casesOf, visualOf } from "../../testing/craft/cases";
import { KINDS } from "../kinds";
import { FINISHES } from "../kinds/finishes";
import type { Scene } from "../scene/marks";
import { sceneOf, styleOf } from "./picture";

describe("finishes", () => {
  it("are at least seven, and each of their dials is one that some kind has, at a value that it can have", () => {
    expect(FINISHES.length).toBeGreaterThanOrEqual(7);
    for (const finish of FINISHES)
      for (const [key, value] of Object.entries(finish.dials)) {
        const taken = KINDS.filter((k) => {
          const style = styleOf({ kind: k.id, finish: finish.id, dials: {} });
          return style.has(key) && style.value(key) === value;
        });
        expect(taken.length, `${finish.id} ${key}`).toBeGreaterThan(0);
      }
  });

  it.each(KINDS.map((k) => [k.label, k.id] as const))(
    "%s: each finish gives it a look of its own",
    (_, kind) => {
      const cases = casesOf(kind);
      const looks = (finish: string) =>
        cases.map(({ data, dials, look }) => {
          const scene: Scene = sceneOf(visualOf(kind, dials, { finish, ...look }), data);
          return JSON.stringify(scene);
        });
      const all = FINISHES.map((f) => looks(f.id));
      for (const [i, a] of all.entries())
        for (const [k, b] of all.entries())
          if (k < i)
            expect(
              a.some((text, n) => text !== b[n]),
              `${FINISHES[i].id} and ${FINISHES[k].id}`,
            ).toBe(true);
    },
  );

  it("dials set by hand go before the finish, and the finish before the kind's own", () => {
    const at = (dials: Record<string, number>, finish: string) =>
      styleOf({ kind: "donut", finish, dials }).number("arc.gap");
    expect([at({}, "plain"), at({}, "soft"), at({ "arc.gap": 11 }, "soft")]).toEqual([3, 5, 11]);
    expect(at({}, "a finish that is gone")).toBe(3);
  });
});
