import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { visualOf } from "../../../testing/craft/cases";
import { CATEGORIES, sampleData, VALUES } from "../../../testing/craft/sample-data";
import { plainRow } from "../../rows/visual-data";
import { contrast } from "../../scene/colour";
import { covers } from "../../scene/hit";
import type { Letter, Sector, Text } from "../../scene/marks";
import { sceneOf } from "../../view/picture";

const KINDS = ["progress ring", "radial bars"] as const;
const FRAME = { width: 440, height: 420 };

function drawn(kind: (typeof KINDS)[number], dials: Record<string, string | number>, values = VALUES) {
  const visual = visualOf(kind, { "labels.place": "track", "ring.thickness": 22, ...dials });
  const scene = sceneOf(visual, sampleData(values, { target: 350_000 }), undefined, { size: FRAME });
  const texts = scene.marks.filter((m): m is Text => m.type === "text");
  const ringOf = (key: string, id: "arc" | "track") =>
    scene.marks.find((m): m is Sector => m.type === "sector" && m.id === `${id}:${key}`);
  const bent = texts.filter((t): t is Text & { letters: Letter[] } => t.letters !== undefined);
  return { bent, texts, ringOf, scene };
}

describe("names in the track", () => {
  it("are all there, letter by letter, at the start of their rings", () => {
    for (const kind of KINDS) {
      const { bent } = drawn(kind, { "labels.content": "category" });
      expect(bent.map((t) => t.text)).toEqual(CATEGORIES);
      for (const text of bent)
        expect(text.letters.map((l) => l.text).join("")).toBe(text.text.replaceAll(" ", ""));
    }
  });

  it("keep their letters within their ring, upright, on one ground that they read on", () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...KINDS),
        fc.integer({ min: 0, max: 359 }),
        fc.integer({ min: 120, max: 360 }),
        fc.array(fc.integer({ min: 1000, max: 700_000 }), { minLength: 2, maxLength: 5 }),
        fc.constantFrom("hold", "lap", "extend"),
        (kind, start, sweep, values, past) => {
          const dials = { "ring.start": start, "ring.sweep": sweep, "ring.past": past };
          const { bent, ringOf } = drawn(kind, { ...dials, "labels.content": "category" }, values);
          for (const text of bent) {
            const key = text.id.slice("name:".length);
            const [track, arc] = [ringOf(key, "track"), ringOf(key, "arc")];
            if (!track) throw new Error(`${key} has no track`);
            const reach = text.size / 2;
            const grounds = text.letters.map(({ x, y, turn }) => {
              const distance = Math.hypot(x - track.cx, y - track.cy);
              expect(distance - reach).toBeGreaterThan(track.inner - 0.01);
              expect(distance + reach).toBeLessThan(track.outer + 0.01);
              const angle = (Math.atan2(x - track.cx, track.cy - y) * 180) / Math.PI;
              const from = (((angle - start) % 360) + 360) % 360;
              expect(from).toBeLessThan(sweep);
              // A name that runs over a side of the circle leans; none lies on its head.
              const lean = Math.abs(((((turn + 180) % 360) + 360) % 360) - 180);
              expect(lean).toBeLessThan(170);
              return arc && start + from < arc.end ? "arc" : "track";
            });
            expect(new Set(grounds).size).toBe(1);
            const ground = grounds[0] === "arc" ? arc?.fill : track.fill;
            expect(contrast(text.fill, ground as string)).toBeGreaterThanOrEqual(4.5);
          }
        },
      ),
      { numRuns: 300, seed: 7 },
    );
  });

  it("give way to a legend where one of them has no room, or rings are too thin for letters", () => {
    for (const kind of KINDS) {
      const thin = drawn(kind, { "ring.thickness": 8 });
      expect(thin.bent).toEqual([]);
      for (const name of CATEGORIES.slice(0, 5))
        expect(thin.texts.some((t) => t.text.startsWith(name))).toBe(true);
    }
  });

  it("leave scripts alone whose letters join", () => {
    const data = sampleData([3, 2, 1]);
    const rows = data.rows.map((row, i) =>
      plainRow(row.key, ["رصيف", "Old Pier", "North Quay"][i], row.value),
    );
    const visual = visualOf("progress ring", { "labels.place": "track", "ring.thickness": 22 });
    const scene = sceneOf(visual, { ...data, rows }, undefined, { size: FRAME });
    const texts = scene.marks.filter((m): m is Text => m.type === "text");
    expect(texts.filter((t) => t.letters)).toEqual([]);
    expect(texts.some((t) => t.text === "رصيف")).toBe(true);
  });

  it("say a value in the same wording in all rings", () => {
    const { bent } = drawn("radial bars", { "labels.content": "category value" });
    expect(bent).toHaveLength(6);
    const short = bent.filter((t) => t.text.endsWith("k")).length;
    expect([0, 6]).toContain(short);
  });

  it("read on all colours of a ramp along their arc", () => {
    for (const kind of KINDS) {
      const { bent, scene } = drawn(kind, { "labels.content": "category", "surface.shade": "ramp" });
      let onArcs = 0;
      for (const text of bent) {
        const pieces = scene.marks.filter((m) => m.id.startsWith(`arc:${text.id.slice("name:".length)}/`));
        const onArc = pieces.some((piece) => covers(piece, text.letters[0].x, text.letters[0].y));
        if (!onArc) continue;
        onArcs++;
        for (const { fill } of pieces)
          expect(contrast(text.fill, fill as string)).toBeGreaterThanOrEqual(4.5);
      }
      expect(onArcs).toBeGreaterThan(1);
    }
  });
});
