import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { PERCENT_FORMAT, PLAIN_FORMAT } from "../../core/base/number-format";
import type { VisualData } from "../../core/rows/visual-data";
import { sceneOf } from "../../core/view/picture";
import { MANY_VALUES, ONE_VALUE, visualOf } from "./cases";
import { drawnZones, sampleData } from "./sample-data";

// What a picture says of a number is the same wherever it says it, and on the side of a line where it lies.

const BY_SIZE = { ...PLAIN_FORMAT, units: "automatic" as const, decimals: 1 };

/** Everything that a picture writes, says or has under the pointer. */
function textsOf(kind: Parameters<typeof visualOf>[0], data: VisualData): string[] {
  const scene = sceneOf(visualOf(kind, { "legend.place": "right", "labels.content": "value" }), data);
  const written = scene.marks.flatMap((m) => (m.type === "text" ? [m.text] : []));
  const pointed = scene.marks.flatMap((m) => m.datum?.lines.map((l) => l.value) ?? []);
  return [...written, ...pointed, scene.description];
}

describe("one unit", () => {
  it.each(MANY_VALUES.filter((k) => k !== "number"))(
    "in the labels, legend, reading, tooltip and words of: %s",
    (kind) => {
      const data = sampleData([1_321_014, 1_145_029, 759_684, 713_353], {
        format: BY_SIZE,
        title: "T",
        subtitle: "",
      });
      const said = textsOf(kind, data).filter((t) => /\d/.test(t));
      expect(
        said.some((t) => /\d\u2009M/.test(t)),
        said.join(" | "),
      ).toBe(true);
      // A scale beside bars counts in a unit of its own; its numbers have no decimals.
      expect(said.filter((t) => /\d\.\dk|\d{4}/.test(t))).toEqual([]);
      expect(said.filter((t) => /0\.8\u2009M/.test(t)).length).toBeGreaterThan(0);
    },
  );

  it("for each of two measures of a row, whether by size or shortened for want of room", () => {
    const data = sampleData([1_321_014, 1_145_029, 759_684, 713_353], { title: "T", subtitle: "" });
    const rows = data.rows.map((row, i) => ({
      ...row,
      second: [2_052_600, 1_886_720, 863_800, 1_335_360][i],
    }));
    for (const format of [BY_SIZE, PLAIN_FORMAT]) {
      const both = { ...data, rows, format, second: { label: "Seats", format: { ...format }, total: null } };
      const visual = visualOf("nested bars", { "labels.of": "both", "labels.content": "value" });
      const scene = sceneOf(visual, both, undefined, { size: { width: 300, height: 220 } });
      const said = scene.marks.flatMap((m) => (m.type === "text" && m.text.includes(" · ") ? [m.text] : []));
      expect(said).toHaveLength(4);
      for (const text of said) expect(text).toMatch(/^\d\.\d\u2009M · \d\.\d\u2009M$/);
      const pointed = scene.marks.flatMap((m) => m.datum?.lines.map((l) => l.value) ?? []);
      if (format === BY_SIZE) expect(pointed.filter((t) => !/^\d\.\d\u2009M$/.test(t))).toEqual([]);
    }
  });

  it("for the size of heads, beside their values", () => {
    const data = sampleData([4, 3, 2], { title: "T", subtitle: "" });
    const rows = data.rows.map((row, i) => ({ ...row, headSize: [2_052_600, 863_800, 1_335_360][i] }));
    const sized = { ...data, rows, headSize: { label: "Revenue", format: { ...BY_SIZE } } };
    const scene = sceneOf(visualOf("lollipop", {}), sized);
    const said = scene.marks.flatMap((m) => m.datum?.lines.filter((l) => l.label === "Revenue") ?? []);
    expect(said.map((l) => l.value)).toEqual(["2.1\u2009M", "0.9\u2009M", "1.3\u2009M"]);
  });

  it.each(MANY_VALUES)("that was chosen holds everywhere: %s", (kind) => {
    const format = { ...PLAIN_FORMAT, units: "thousand" as const, decimals: 1 };
    const said = textsOf(kind, sampleData([1_321_014, 759_684], { format, title: "T", subtitle: "" }));
    expect(said.filter((t) => /\d\u2009(M|bn)/.test(t))).toEqual([]);
  });
});

const WORDS = ["poor", "watch", "good"];

describe("rounding", () => {
  it("never carries a gauge's reading into another zone than its word says", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 1_000_000 }).map((n) => n / 1_000_000),
        fc.integer({ min: 1, max: 98 }),
        fc.integer({ min: 0, max: 2 }),
        (value, low, decimals) => {
          const edges = [low / 100, (low + 1) / 100];
          const zones = drawnZones([
            { to: edges[0], word: "poor", tone: "poor" },
            { to: edges[1], word: "watch", tone: "watch" },
            { to: null, word: "good", tone: "good" },
          ]);
          const format = { ...PERCENT_FORMAT, decimals };
          const scene = sceneOf(visualOf("gauge"), sampleData([value], { format, zones }));
          const text = (id: string) =>
            scene.marks.flatMap((m) => (m.id === id && m.type === "text" ? m.text : []))[0];
          const shown = Number.parseFloat(text("reading")) / 100;
          const zone = edges.filter((edge) => shown >= edge - 1e-9).length;
          // A value within a millionth of an edge cannot be written apart from it.
          if (edges.every((edge) => Math.abs(value - edge) > 1e-7)) expect(text("word")).toBe(WORDS[zone]);
        },
      ),
    );
  });

  it.each(ONE_VALUE.filter((k) => k !== "number"))(
    "claims no goal that is not reached, and none that is missed: %s",
    (kind) => {
      for (const [value, target] of [
        [0.99996, 1],
        [1.00004, 1],
        [41_999.7, 42_000],
        [42_000.2, 42_000],
        [0.9196, 0.92],
      ]) {
        const format = target > 1 ? PLAIN_FORMAT : PERCENT_FORMAT;
        const said = textsOf(kind, sampleData([value], { format, target, title: "T", subtitle: "" }));
        const readings = said.filter(
          (t) => t === "100\u2009%" || t === "42\u2009000" || t === "100.0\u2009%",
        );
        // The target itself is written as it is: by the mark, the tooltip and the end of a scale.
        const shares = readings.filter((t) => t.startsWith("100"));
        if (kind !== "gauge") expect(shares, `${value} of ${target}: ${said.join(" | ")}`).toEqual([]);
        const own = sceneOf(visualOf(kind), sampleData([value], { format, target })).marks.find(
          (m) => m.datum,
        )?.datum;
        expect(Number.parseFloat(own?.lines[0].value.replace(/\u2009/g, "") ?? "")).not.toBe(
          target > 1 ? target : target * 100,
        );
      }
    },
  );
});
