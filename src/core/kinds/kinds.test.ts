import { describe, expect, it } from "vitest";
import { type KindId, projectSchema, type Visual, visualSchema } from "../project/schema";
import { contrast, THEMES } from "../scene/colour";
import type { Scene, Sector, Text } from "../scene/marks";
import { textWidth } from "../scene/text";
import { KINDS, kindOf } from "./index";
import type { Dial } from "./kind";
import { sceneOf } from "./picture";
import { trialsOf } from "./trials";
import { PERCENT_FORMAT, PLAIN_FORMAT, toVisualData, type VisualData } from "./visual-data";

const CATEGORIES = ["Ferrow Isle", "North Quay", "Gannet Sound", "Old Pier", "Marl Point", "Upper Lanthorne Public Landing Stage"];
const VALUES = [310_200, 240_100, 150_400, 110_000, 80_000, 43_420];

function dataOf(values: (number | null)[], more: Partial<VisualData> = {}): VisualData {
  const present = values.filter((v) => v !== null);
  const total = present.length ? present.reduce((a, b) => a + b, 0) : null;
  const format = more.format ?? PLAIN_FORMAT;
  const target = more.target ?? null;
  const write = (value: number | null, f = format) => ({ value, format: f });
  return {
    rows: values.map((value, i) => ({ key: `k${i}`, label: CATEGORIES[i] ?? `Category ${i + 1}`, value, groups: 0 })),
    total,
    target,
    minimum: null,
    maximum: null,
    zones: [],
    format,
    valueLabel: "Passengers",
    splitLabel: null,
    title: "Passengers by route",
    subtitle: "{total} carried",
    notes: [],
    problem: null,
    names: {
      value: write(total),
      total: write(total),
      target: write(target),
      measure: "Passengers",
      category: "",
      share: write(target && total !== null ? total / target : null, PERCENT_FORMAT),
    },
    ...more,
  };
}
const ZONES: VisualData["zones"] = [
  { to: 0.7, word: "poor", tone: "poor" },
  { to: 0.9, word: "watch", tone: "watch" },
  { to: null, word: "good", tone: "good" },
];
const rate = (value: number | null) =>
  dataOf([value], { format: { ...PERCENT_FORMAT, decimals: 1 }, target: 0.92, minimum: 0, maximum: 1, zones: ZONES, title: "On-time departures", subtitle: "Goal {target}" });

const visualOf = (kind: KindId, dials: Visual["dials"] = {}, split = false): Visual =>
  visualSchema.parse({ id: "v", name: "v", kind, value: "m", dials, split: split ? { column: "route" } : null });

const CASES: [string, Visual, VisualData][] = [
  ["donut", visualOf("donut", {}, true), dataOf(VALUES)],
  ["donut, labels outside", visualOf("donut", { "labels.place": "outside", "labels.content": "category share" }, true), dataOf(VALUES)],
  ["half donut", visualOf("donut", { "arc.start": 270, "arc.sweep": 180 }, true), dataOf(VALUES)],
  ["pie, the other way", visualOf("donut", { "arc.hole": 0, "arc.direction": "counter", "labels.content": "value" }, true), dataOf(VALUES)],
  ["gauge", visualOf("gauge"), rate(0.864)],
  ["half gauge with progress", visualOf("gauge", { "arc.start": 270, "arc.sweep": 180, "arc.fill": "progress", "arc.caps": "round" }), rate(0.5)],
  ["gauge of a huge number", visualOf("gauge"), dataOf([1_284_930_112])],
  ["progress bar", visualOf("progress bar"), dataOf([934_120], { target: 1_200_000 })],
  ["progress bar that laps", visualOf("progress bar", { "bar.past": "lap", "labels.remaining": true }), dataOf([934_120], { target: 600_000 })],
  ["progress bars", visualOf("progress bar", {}, true), dataOf(VALUES, { target: 280_000 })],
  ["progress bars that extend", visualOf("progress bar", { "bar.past": "extend" }, true), dataOf(VALUES, { target: 280_000 })],
];
const SIZES = [
  { width: 96, height: 72 },
  { width: 320, height: 240 },
  { width: 1200, height: 700 },
];

interface Box {
  left: number;
  right: number;
  top: number;
  bottom: number;
  text: string;
}
const textBox = (t: Text): Box => {
  const width = textWidth(t.text, t.size, t.weight);
  const left = t.align === "start" ? t.x : t.align === "end" ? t.x - width : t.x - width / 2;
  // Capitals and figures take 0.36 of the size above and below the middle.
  return { left, right: left + width, top: t.y - t.size * 0.36, bottom: t.y + t.size * 0.36, text: t.text };
};

function numbersOf(value: unknown): number[] {
  if (typeof value === "number") return [value];
  return typeof value === "object" && value !== null ? Object.values(value).flatMap(numbersOf) : [];
}

/** What is wrong with a scene as a drawing, in words. */
function faults(scene: Scene): string[] {
  const found: string[] = [];
  for (const mark of scene.marks) if (numbersOf(mark).some((n) => !Number.isFinite(n))) found.push(`${mark.id} holds a number that is none`);
  const ids = scene.marks.map((m) => m.id);
  for (const id of new Set(ids)) if (ids.filter((i) => i === id).length > 1) found.push(`${id} stands twice`);
  const texts = scene.marks.filter((m): m is Text => m.type === "text").map(textBox);
  for (const box of texts) {
    if (/NaN|undefined|null|Infinity/.test(box.text)) found.push(`a text says ${box.text}`);
    if (box.left < -0.5 || box.right > scene.width + 0.5 || box.top < -0.5 || box.bottom > scene.height + 0.5) found.push(`“${box.text}” leaves the frame`);
  }
  for (const [i, a] of texts.entries()) {
    for (const b of texts.slice(i + 1)) {
      if (Math.min(a.right, b.right) - Math.max(a.left, b.left) > 0.5 && Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top) > 0.5) found.push(`“${a.text}” lies on “${b.text}”`);
    }
  }
  return found;
}

describe("every kind at its hard values", () => {
  for (const [name, visual, data] of CASES) {
    it(`${name}: no text outside the frame or on another, no number that is none`, () => {
      const shapes = [
        { id: "now", label: "", data },
        ...trialsOf(visual, data),
        { id: "null", label: "", data: { ...dataOf([null, null], data), rows: dataOf([null, null]).rows, total: null } },
      ];
      for (const size of SIZES) {
        for (const theme of ["light", "night"] as const) {
          for (const shape of shapes) {
            const scene = sceneOf(visual, shape.data, { size, theme });
            expect(faults(scene), `${shape.id} at ${size.width}`).toEqual([]);
            expect(scene.description.length).toBeGreaterThan(3);
          }
        }
      }
    });
  }

  it("the same input gives the same scene", () => {
    for (const [, visual, data] of CASES) expect(sceneOf(visual, data)).toEqual(sceneOf(visual, data));
  });
});

const sectorsOf = (scene: Scene, id: string) => scene.marks.filter((m): m is Sector => m.type === "sector" && m.id.startsWith(id));

describe("the picture tells the truth", () => {
  it("donut: each angle is its share of the sweep, and together they close", () => {
    const turns: Visual["dials"][] = [{}, { "arc.sweep": 200, "arc.start": 300 }, { "arc.direction": "counter" }];
    for (const dials of turns) {
      const slices = sectorsOf(sceneOf(visualOf("donut", dials, true), dataOf(VALUES)), "slice:");
      const sum = VALUES.reduce((a, b) => a + b);
      const sweep = Number(dials["arc.sweep"] ?? 360);
      for (const [i, s] of slices.entries()) expect((s.end - s.start) / sweep).toBeCloseTo(VALUES[i] / sum, 9);
      expect(slices.reduce((total, s) => total + s.end - s.start, 0)).toBeCloseTo(sweep, 9);
    }
  });

  it("donut: below zero has no part and is said to be left out; zero is an empty ring; one category is a full one", () => {
    const negative = sceneOf(visualOf("donut", {}, true), dataOf([10, -5, 20]), { size: { width: 400, height: 300 } });
    expect(sectorsOf(negative, "slice:")).toHaveLength(2);
    expect(negative.description).toContain("1 below zero left out");
    expect(negative.marks.some((m) => m.type === "text" && m.text.includes("below zero left out"))).toBe(true);
    const zero = sceneOf(visualOf("donut", {}, true), dataOf([0, 0]));
    expect(sectorsOf(zero, "slice:")).toHaveLength(0);
    expect(sectorsOf(zero, "track")).toHaveLength(1);
    expect(zero.marks.find((m) => m.id === "reading")).toMatchObject({ text: "0" });
    expect(sectorsOf(sceneOf(visualOf("donut", {}, true), dataOf([7])), "slice:")[0]).toMatchObject({ inset: 0 });
  });

  it("donut: the centre shows the segment under the pointer", () => {
    const scene = sceneOf(visualOf("donut", {}, true), dataOf(VALUES), { focus: "k1" });
    expect(scene.marks.find((m) => m.id === "reading")).toMatchObject({ text: "240\u2009100" });
    expect(scene.marks.find((m) => m.id === "caption")).toMatchObject({ text: "North Quay · 26\u2009%" });
  });

  it("donut: parts of a rate, which do not add up to it, say so", () => {
    const rates = dataOf([0.6, 0.5, 0.4], { format: PERCENT_FORMAT, total: 0.52 });
    expect(sceneOf(visualOf("donut", {}, true), rates).description).toContain("The parts do not add up to the total");
    expect(sceneOf(visualOf("donut", {}, true), dataOf(VALUES)).description).not.toContain("do not add up");
  });

  it("a measure that is a text is not drawn as nothing", () => {
    const project = projectSchema.parse({
      format: "cavlo-project",
      version: 1,
      name: "p",
      measures: [{ id: "m", name: "word", label: "Word", table: null, formula: "'good'", format: {} }],
    });
    const result = {
      columns: [{ name: "word", type: "text" as const, values: ["good"] }],
      rows: 1,
      totals: { word: "good" },
      others: null,
      noMatch: null,
      crossed: null,
      unfiltered: [],
      scanned: 0,
      ms: 0,
    };
    expect(toVisualData(visualOf("gauge"), project, result).problem).toBe("Word is a text; a visual needs a number");
  });

  it("gauge: the needle stands at the value's share, pinned at the ends, and the reading is always true", () => {
    const needle = (value: number, dials: Visual["dials"] = {}) => {
      const scene = sceneOf(visualOf("gauge", dials), rate(value));
      const mark = scene.marks.find((m) => m.id === "needle");
      const reading = scene.marks.find((m) => m.id === "reading");
      return { share: mark?.type === "polygon" ? (mark.rotate - 240) / 240 : null, text: reading?.type === "text" ? reading.text : "", scene };
    };
    expect(needle(0.864).share).toBeCloseTo(0.864, 9);
    expect(needle(1.12)).toMatchObject({ share: 1, text: "112.0\u2009%" });
    expect(needle(1.12).scene.marks.some((m) => m.type === "text" && m.text === "past the end")).toBe(true);
    expect(needle(-0.2)).toMatchObject({ share: 0, text: "−20.0\u2009%" });
    expect(needle(1.12, { "arc.past": "extend" }).share).toBeCloseTo(1.12 / 1.2, 9);
    const [lap] = sectorsOf(needle(1.12, { "arc.past": "lap" }).scene, "lap");
    expect((lap.end - lap.start) / 240).toBeCloseTo(0.12, 9);
  });

  it("gauge: the reading is never cut, however small the dial", () => {
    for (const size of [
      { width: 96, height: 72 },
      { width: 130, height: 80 },
      { width: 220, height: 140 },
      { width: 220, height: 132 },
      { width: 300, height: 230 },
    ]) {
      for (const value of [0, 0.864, 0.92, 1.12, -0.2]) {
        for (const sweep of [180, 240, 270, 300]) {
          const dials = { "heading.shown": false, "frame.padding": 6, "arc.sweep": sweep, "arc.start": (360 - sweep / 2) % 360 };
          const reading = sceneOf(visualOf("gauge", dials), rate(value), { size }).marks.find((m) => m.id === "reading");
          expect(reading?.type === "text" ? reading.text : "", `${value} on ${sweep} at ${size.width}`).toMatch(/^−?\d+(\.\d)?\u2009%$/);
        }
      }
    }
  });

  it("gauge: the zones cover the scale, and an edge belongs to the zone above it", () => {
    const zones = sectorsOf(sceneOf(visualOf("gauge"), rate(0.9)), "zone:");
    expect(zones.map((z) => [z.start, z.end])).toEqual([
      [240, 240 + 240 * 0.7],
      [240 + 240 * 0.7, 240 + 240 * 0.9],
      [240 + 240 * 0.9, 480],
    ]);
    expect(sceneOf(visualOf("gauge"), rate(0.9)).description).toContain("in the zone good");
    expect(sceneOf(visualOf("gauge"), rate(0.8999)).description).toContain("in the zone watch");
  });

  it("progress bar: the bar's length is the share, and past the goal it does what was chosen", () => {
    const lengths = (value: number, dials: Visual["dials"] = {}) => {
      const scene = sceneOf(visualOf("progress bar", dials), dataOf([value], { target: 100 }));
      const width = (id: string) => {
        const mark = scene.marks.find((m) => m.id.startsWith(`${id}:`));
        return mark?.type === "rect" ? mark.width : 0;
      };
      return { bar: width("bar") / width("track"), lap: width("lap") / width("track"), scene };
    };
    expect(lengths(64).bar).toBeCloseTo(0.64, 9);
    expect(lengths(0).bar).toBe(0);
    expect(lengths(-10).bar).toBe(0);
    expect(lengths(112)).toMatchObject({ bar: 1, lap: 0 });
    expect(lengths(112).scene.marks.some((m) => m.id.startsWith("past:"))).toBe(true);
    expect(lengths(112, { "bar.past": "lap" }).lap).toBeCloseTo(0.12, 9);
    const extended = lengths(125, { "bar.past": "extend" });
    expect(extended.bar).toBe(1);
    const track = extended.scene.marks.find((m) => m.id.startsWith("track:"));
    const tick = extended.scene.marks.find((m) => m.id.startsWith("target:"));
    if (track?.type !== "rect" || tick?.type !== "line") throw new Error("no track or tick");
    expect((tick.points[0][0] - track.x) / track.width).toBeCloseTo(0.8, 9);
  });

  it("just under the goal is not said to be the goal", () => {
    const scene = sceneOf(visualOf("progress bar"), dataOf([998], { target: 1000 }));
    expect(scene.marks.find((m) => m.id === "reading")).toMatchObject({ text: "99.8\u2009%" });
  });

  it("no rows say so, and are not drawn as zero", () => {
    for (const [, visual, data] of CASES) {
      const scene = sceneOf(visual, { ...data, rows: [], total: null });
      expect(scene.marks.some((m) => m.type === "text" && m.text === "No rows here")).toBe(true);
      expect(scene.marks.some((m) => m.type === "sector" || m.type === "rect")).toBe(false);
    }
  });
});

/** Another value that a dial can have. */
function otherValue(dial: Dial): number | string | boolean {
  switch (dial.type) {
    case "number":
      return dial.default > (dial.min + dial.max) / 2 ? dial.min : dial.max;
    case "choice":
      return dial.options.find((o) => o.value !== dial.default)?.value ?? "";
    case "toggle":
      return !dial.default;
    case "colour":
      return "#123456";
    case "template":
      return "something else";
  }
}

describe("every dial is read", () => {
  for (const kind of KINDS) {
    const cases = CASES.filter(([, v]) => v.kind === kind.id);
    for (const part of kind.parts) {
      for (const dial of part.dials) {
        it(`${kind.id}: ${part.label}, ${dial.label}`, () => {
          const key = `${part.id}.${dial.id}`;
          const values = dial.type === "choice" ? dial.options.map((o) => o.value) : [otherValue(dial)];
          const changes = cases.some(([, visual, data]) => {
            const shapes = [data, ...trialsOf(visual, data).map((t) => t.data)];
            return shapes.some((shape) => {
              const before = JSON.stringify(sceneOf(visual, shape));
              return values.some((v) => JSON.stringify(sceneOf({ ...visual, dials: { ...visual.dials, [key]: v } }, shape)) !== before);
            });
          });
          expect(changes).toBe(true);
        });
      }
    }
  }

  it("keeps what both kinds have when the kind changes, and gives the rest back", () => {
    const shared = kindOf("gauge")
      .parts.flatMap((p) => p.dials.map((d) => `${p.id}.${d.id}`))
      .filter((key) => kindOf("donut").parts.some((p) => p.dials.some((d) => `${p.id}.${d.id}` === key)));
    expect(shared).toContain("reading.size");
    const before = visualOf("donut", { "reading.size": 20, "arc.hole": 40 }, true);
    expect(sceneOf({ ...before, kind: "gauge" }, rate(0.5)).marks.find((m) => m.id === "reading")).toMatchObject({ size: 20 });
    expect({ ...before, kind: "gauge" }.dials["arc.hole"]).toBe(40);
  });
});

describe("colours", () => {
  it.each(["light", "night"] as const)("text is readable and shapes can be told from the sheet, %s", (name) => {
    const theme = THEMES[name];
    expect(contrast(theme.ink, theme.sheet)).toBeGreaterThan(7);
    expect(contrast(theme.muted, theme.sheet)).toBeGreaterThan(4.5);
    expect(contrast(theme.signal, theme.sheet)).toBeGreaterThan(4.5);
    for (const c of theme.categories) expect(contrast(c, theme.sheet), c).toBeGreaterThan(2.7);
  });
});
