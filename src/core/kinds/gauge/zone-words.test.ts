import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { visualOf } from "@/testing/craft/cases";
import { faults } from "@/testing/craft/faults";
import { drawnZones, sampleData } from "@/testing/craft/sample-data";
import { PERCENT_FORMAT } from "../../base/number-format";
import { THEMES } from "../../scene/colour";
import type { Scene } from "../../scene/marks";
import { sceneOf } from "../../view/picture";

const WORDS = ["poor", "watch closely", "narrow", "good", "far below what was agreed", ""];
const gauge = (edges: number[], words: string[], dials: Record<string, string | number | boolean>): Scene => {
  const ends = [...new Set(edges)].toSorted((a, b) => a - b);
  const zones = drawnZones(
    [...ends, null].map((to, i) => ({ to, word: words[i % words.length], tone: "watch" })),
  );
  const data = sampleData([0.864], { format: PERCENT_FORMAT, target: 0.92, minimum: 0, maximum: 1, zones });
  return sceneOf(visualOf("gauge", dials, { split: null }), data);
};
const textsOf = ({ marks }: Scene) => marks.flatMap((m) => (m.type === "text" ? [m] : []));
const counted = (scene: Scene) =>
  Number(textsOf(scene).flatMap((m) => /^(\d+) without names$/.exec(m.text)?.[1] ?? [])[0] ?? 0);
const written = (scene: Scene) => textsOf(scene).filter((m) => m.id.startsWith("word:")).length;

describe("the words of zones", () => {
  it("are written or counted at the foot, all of them, clear of the arc whichever way it opens", () => {
    let some = 0;
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0.05, max: 0.97, noNaN: true }), { minLength: 1, maxLength: 6 }),
        fc.shuffledSubarray(WORDS, { minLength: 1 }),
        fc.integer({ min: 0, max: 359 }),
        fc.integer({ min: 90, max: 330 }),
        (edges, words, start, sweep) => {
          const scene = gauge(edges, words, { "arc.preset": "own", "arc.start": start, "arc.sweep": sweep });
          const zones = new Set(edges).size + 1;
          const worded = Array.from({ length: zones }, (_, i) => words[i % words.length]).filter(Boolean);
          expect(written(scene) + counted(scene)).toBe(worded.length);
          expect(faults(scene, THEMES.light.sheet)).toEqual([]);
          some += counted(scene);
        },
      ),
      { numRuns: 200 },
    );
    expect(some).toBeGreaterThan(20);
  });

  it("are not counted where they were turned off", () => {
    expect(counted(gauge([0.9, 0.92, 0.94], WORDS, {}))).toBeGreaterThan(0);
    expect(counted(gauge([0.9, 0.92, 0.94], WORDS, { "zones.words": false }))).toBe(0);
  });
});
