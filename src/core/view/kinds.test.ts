import { describe, expect, it } from "vitest";
import { casesOf, visualOf as hardVisual, ZONES } from "../../testing/craft/cases";
import { keyAt, sampleData, seriesData, seriesKeyAt, VALUES } from "../../testing/craft/sample-data";
import { PERCENT_FORMAT } from "../base/number-format";
import type { KindId } from "../kinds";
import { KINDS, kindOf } from "../kinds";
import type { Dial } from "../kinds/anatomy/dial";
import { FORMAT_VERSION, projectSchema, type Visual } from "../project/schema";
import type { VisualData } from "../rows/visual-data";
import { contrast, THEMES } from "../scene/colour";
import type { Scene, Sector } from "../scene/marks";
import { sceneOf } from "./picture";
import { toVisualData } from "./visual-data";

const rate = (value: number | null) =>
  sampleData([value], {
    format: { ...PERCENT_FORMAT, decimals: 1 },
    target: 0.92,
    minimum: 0,
    maximum: 1,
    zones: ZONES,
    title: "On-time departures",
    subtitle: "Target {target}",
  });

const visualOf = (kind: KindId, dials: Visual["dials"] = {}, split = false): Visual =>
  hardVisual(kind, dials, { split: split ? { column: "route" } : null });

const CASES: [string, Visual, VisualData][] = [
  ["donut", visualOf("donut", {}, true), sampleData(VALUES)],
  [
    "donut, labels outside",
    visualOf("donut", { "labels.place": "outside", "labels.content": "category share" }, true),
    sampleData(VALUES),
  ],
  ["half donut", visualOf("donut", { "arc.start": 270, "arc.sweep": 180 }, true), sampleData(VALUES)],
  [
    "pie, the other way",
    visualOf("donut", { "arc.hole": 0, "arc.direction": "counter", "labels.content": "value" }, true),
    sampleData(VALUES),
  ],
  ["gauge", visualOf("gauge"), rate(0.864)],
  [
    "half gauge with progress",
    visualOf("gauge", { "arc.start": 270, "arc.sweep": 180, "arc.fill": "progress", "arc.caps": "round" }),
    rate(0.5),
  ],
  ["gauge of a huge number", visualOf("gauge"), sampleData([1_284_930_112])],
  ["progress bar", visualOf("progress bar"), sampleData([934_120], { target: 1_200_000 })],
  [
    "progress bar that laps",
    visualOf("progress bar", { "bar.past": "lap", "labels.remaining": true }),
    sampleData([934_120], { target: 600_000 }),
  ],
  ["progress bars", visualOf("progress bar", {}, true), sampleData(VALUES, { target: 280_000 })],
  [
    "progress bars that extend",
    visualOf("progress bar", { "bar.past": "extend" }, true),
    sampleData(VALUES, { target: 280_000 }),
  ],
];
it("the same input gives the same scene", () => {
  for (const [, visual, data] of CASES) expect(sceneOf(visual, data)).toEqual(sceneOf(visual, data));
});

const sectorsOf = (scene: Scene, id: string) =>
  scene.marks.filter((m): m is Sector => m.type === "sector" && m.id.startsWith(id));

describe("the picture tells the truth", () => {
  it("donut: each angle is its share of the sweep, and together they close", () => {
    const turns: Visual["dials"][] = [
      {},
      { "arc.sweep": 200, "arc.start": 300 },
      { "arc.direction": "counter" },
    ];
    for (const dials of turns) {
      const slices = sectorsOf(sceneOf(visualOf("donut", dials, true), sampleData(VALUES)), "slice:");
      const sum = VALUES.reduce((a, b) => a + b);
      const sweep = Number(dials["arc.sweep"] ?? 360);
      for (const [i, s] of slices.entries())
        expect((s.end - s.start) / sweep).toBeCloseTo(VALUES[i] / sum, 9);
      expect(slices.reduce((total, s) => total + s.end - s.start, 0)).toBeCloseTo(sweep, 9);
    }
  });

  it("donut: below zero has no part and is said to be left out; zero is an empty ring; one category is a full one", () => {
    const negative = sceneOf(visualOf("donut", {}, true), sampleData([10, -5, 20]), undefined, {
      size: { width: 400, height: 300 },
    });
    expect(sectorsOf(negative, "slice:")).toHaveLength(2);
    expect(negative.description).toContain("1 below zero left out");
    expect(negative.marks.some((m) => m.type === "text" && m.text.includes("below zero left out"))).toBe(
      true,
    );
    const zero = sceneOf(visualOf("donut", {}, true), sampleData([0, 0]));
    expect(sectorsOf(zero, "slice:")).toHaveLength(0);
    expect(sectorsOf(zero, "track")).toHaveLength(1);
    expect(zero.marks.find((m) => m.id === "reading")).toMatchObject({ text: "0" });
    expect(sectorsOf(sceneOf(visualOf("donut", {}, true), sampleData([7])), "slice:")[0]).toMatchObject({
      inset: 0,
    });
  });

  it("labels within shapes serve the largest first: none stands among larger ones without", () => {
    const values = [25, 22, 14, 13, 11, 8, 7];
    for (const [kind, prefix] of [
      ["donut", "label0:null:"],
      ["rose", "label0:"],
    ] as const)
      for (const width of [180, 220, 260, 320, 400, 500])
        for (const share of [1, 0.8, 0.65]) {
          const data = sampleData(values);
          const visual = visualOf(kind, { "labels.content": "value", "labels.place": "inside" });
          const scene = sceneOf(visual, data, undefined, { size: { width, height: width * share } });
          const labelled = data.rows.map((r) => scene.marks.some((m) => m.id === `${prefix}${r.key}`));
          expect(labelled, `${kind} ${width}`).toEqual(labelled.toSorted((a, b) => Number(b) - Number(a)));
        }
  });

  it("donut: the centre shows the segment under the pointer", () => {
    const scene = sceneOf(visualOf("donut", {}, true), sampleData(VALUES), undefined, {
      focus: { row: keyAt(1) },
    });
    expect(scene.marks.find((m) => m.id === "reading")).toMatchObject({ text: "240\u2009100" });
    expect(scene.marks.find((m) => m.id === "caption")).toMatchObject({ text: "North Quay · 26\u2009%" });
  });

  it("donut: parts of a rate, which do not add up to it, say so", () => {
    const rates = sampleData([0.6, 0.5, 0.4], { addsUp: false, format: PERCENT_FORMAT, total: 0.52 });
    expect(sceneOf(visualOf("donut", {}, true), rates).description).toContain(
      "The parts do not add up to the total",
    );
    expect(sceneOf(visualOf("donut", {}, true), sampleData(VALUES)).description).not.toContain(
      "do not add up",
    );
  });

  it("a measure that is a text is not drawn as nothing", () => {
    const project = projectSchema.parse({
      format: "cavlo-project",
      version: FORMAT_VERSION,
      name: "p",
      measures: [{ id: "m", name: "word", label: "Word", table: null, formula: "'good'", format: {} }],
    });
    const result = {
      columns: [{ name: "word", type: "text" as const, values: ["good"] }],
      rows: 1,
      totals: { word: "good" },
      others: null,
      noMatch: null,
      places: [],
      crossed: null,
      unfiltered: [],
      leftWhole: [],
      atRest: null,
      unanswered: [],
      coarse: [],
      scanned: 0,
      ms: 0,
    };
    expect(toVisualData(visualOf("gauge"), project, result).problem).toBe(
      "Word is a text; a visual needs a number",
    );
  });

  it("gauge: the needle stands at the value's share, pinned at the ends, and the reading is always true", () => {
    const needle = (value: number, dials: Visual["dials"] = {}) => {
      const scene = sceneOf(visualOf("gauge", dials), rate(value));
      const mark = scene.marks.find((m) => m.id === "needle");
      const reading = scene.marks.find((m) => m.id === "reading");
      return {
        share: mark?.type === "polygon" ? (mark.rotate - 240) / 240 : null,
        text: reading?.type === "text" ? reading.text : "",
        scene,
      };
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
          const dials = {
            "heading.shown": false,
            "frame.padding": 6,
            "arc.sweep": sweep,
            "arc.start": (360 - sweep / 2) % 360,
          };
          const reading = sceneOf(visualOf("gauge", dials), rate(value), undefined, { size }).marks.find(
            (m) => m.id === "reading",
          );
          expect(
            reading?.type === "text" ? reading.text : "",
            `${value} on ${sweep} at ${size.width}`,
          ).toMatch(/^−?\d+(\.\d)?\u2009%$/);
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
      const scene = sceneOf(visualOf("progress bar", dials), sampleData([value], { target: 100 }));
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
    const scene = sceneOf(visualOf("progress bar"), sampleData([998], { target: 1000 }));
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
    case "palette":
      return "lantern";
    case "template":
      return "something else";
  }
}

describe("every dial is read", () => {
  for (const kind of KINDS) {
    const cases = casesOf(kind.id);
    for (const part of kind.parts) {
      for (const dial of part.dials) {
        it(`${kind.id}: ${part.label}, ${dial.label}`, () => {
          const key = `${part.id}.${dial.id}`;
          const values =
            dial.type === "choice"
              ? dial.options.map((o) => o.value)
              : dial.type === "toggle"
                ? [true, false]
                : [otherValue(dial)];
          // Some dials only show beside another: a label's text where labels say it, a ramp's palette where
          // values give the colour.
          const beside: Visual["dials"][] = [
            {},
            { "labels.content": "text" },
            { "colours.by": "ramp" },
            { "surface.dashes": 30 },
            { "arc.fill": "progress" },
            { "plate.shown": true },
            { "domain.start": "near" },
            { "surface.shade": "ramp" },
            { "surface.shade": "ramp", "spark.form": "bars" },
            { "arc.border": 4 },
            { "head.border": 4 },
            { "track.shown": true },
            { "colours.by": "one" },
            { "legend.place": "right" },
            { "ring.sweep": 270 },
            { "labels.content": "value" },
          ];
          const changes = beside.some((more) =>
            cases.some(({ data, dials, look }) => {
              const draw = (value?: number | string | boolean) => {
                const own = value === undefined ? {} : { [key]: value };
                // What grows with its tile is seen in one that is larger than the visual was made for.
                const size = dial.id === "grow" ? { width: 900, height: 700 } : undefined;
                const visual = hardVisual(kind.id, { ...dials, ...more, ...own }, look);
                const scene = sceneOf(visual, data, undefined, { size });
                // A handle that follows its dial is no sign that anything is drawn by it.
                return JSON.stringify({ ...scene, handles: [] });
              };
              const before = draw();
              return values.some((v) => draw(v) !== before);
            }),
          );
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
    expect(
      sceneOf({ ...before, kind: "gauge" }, rate(0.5)).marks.find((m) => m.id === "reading"),
    ).toMatchObject({ size: 20 });
    expect({ ...before, kind: "gauge" }.dials["arc.hole"]).toBe(40);
  });
});

describe("colours", () => {
  it.each(["light", "night"] as const)(
    "text is readable and shapes can be told from the sheet, %s",
    (name) => {
      const theme = THEMES[name];
      expect(contrast(theme.ink, theme.sheet)).toBeGreaterThan(7);
      expect(contrast(theme.muted, theme.sheet)).toBeGreaterThan(4.5);
      expect(contrast(theme.signal, theme.sheet)).toBeGreaterThan(4.5);
    },
  );
});

describe("measures beside each other", () => {
  it("a ring of another measure is told in that measure's name and format, and the reading keeps the row's own value", () => {
    const base = seriesData([
      [10, 0.25],
      [30, 0.75],
    ]);
    const data = {
      ...base,
      rows: base.rows.map((r) => ({ ...r, value: r.cells[0] })),
      total: 40,
      series: base.series.map((s, k) => ({
        ...s,
        label: ["Passengers", "Load"][k],
        format: k ? PERCENT_FORMAT : base.format,
      })),
    };
    const scene = sceneOf(hardVisual("donut"), data, undefined, {
      focus: { row: keyAt(1) },
      size: { width: 500, height: 400 },
    });
    const lines = (id: string) => scene.marks.find((m) => m.id === id)?.datum?.lines[0];
    expect(lines(`slice:${seriesKeyAt(0)}:${keyAt(1)}`)).toEqual({ label: "Passengers", value: "30" });
    expect(lines(`slice:${seriesKeyAt(1)}:${keyAt(1)}`)).toEqual({ label: "Load", value: "75\u2009%" });
    expect(scene.marks.find((m) => m.id === "reading")).toMatchObject({ text: "30" });
  });

  it("a head's size is told in its own measure's format", () => {
    const data = sampleData([0.4, 0.6], {
      format: PERCENT_FORMAT,
      headSize: { label: "Revenue", format: sampleData([1]).format },
    });
    const scene = sceneOf(hardVisual("lollipop"), {
      ...data,
      rows: data.rows.map((r, i) => ({ ...r, headSize: 700 + i })),
    });
    expect(scene.marks.find((m) => m.id === `head:${keyAt(0)}`)?.datum?.lines).toContainEqual({
      label: "Revenue",
      value: "700",
    });
  });
});
