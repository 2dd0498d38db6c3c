import { describe, expect, it } from "vitest";
import { sampleData, seriesData } from "../../testing/craft/sample-data";
import { madeTile } from "../../testing/made-board";
import { PERCENT_FORMAT, PLAIN_FORMAT } from "../base/number-format";
import { addsUp } from "../project/adds-up";
import { newBoard, newMeasure, newVisual } from "../project/defaults";
import { edited } from "../project/edits";
import { emptyProject, type Project, type Visual } from "../project/schema";
import { areParts } from "../rows/parts-and-whole";
import type { VisualData } from "../rows/visual-data";
import { type Facts, type SettledProof, type Stand, standsOf } from "./finding";
import { RULES, review } from "./index";

const measure = (name: string, formula: string, format: object = {}) => {
  const made = newMeasure({ id: name, name, label: `The ${name}`, table: null, formula });
  return { ...made, format: { ...made.format, ...format } };
};
const project: Project = {
  ...emptyProject("P"),
  tables: [
    {
      id: "t",
      name: "trips",
      rows: 1,
      columns: ["n", "load_rate", "corporate_tax"].map((name) => ({
        name,
        reading: { type: "number" },
        hidden: false,
      })),
      derived: [],
      source: { file: "t.csv" },
    } as unknown as Project["tables"][number],
  ],
  measures: [
    { ...measure("riders", "sum(n)"), table: "trips" },
    { ...measure("mean", "avg(n)"), table: "trips" },
    { ...measure("load", "sum(load_rate)", { style: "percent" }), table: "trips" },
    { ...measure("share", "avg(load_rate)", { style: "percent" }), table: "trips" },
    { ...measure("points", "avg(n)", { suffix: " %" }), table: "trips" },
    { ...measure("tax", "sum(corporate_tax)"), table: "trips" },
    { ...measure("hundredfold", "avg(n) * 100", { style: "percent" }), table: "trips" },
    { ...measure("counted", "avg(load_rate)", { style: "percent" }), table: "trips" },
    { ...measure("whole", "avg(n)", { decimals: 0 }), table: "trips" },
    measure("mean twice", "2 * mean"),
    measure("twice", "2 * riders + riders / 4"),
  ],
};

const SIX = sampleData([60, 40, 25, 14, 9, 5]);
const RATES = sampleData([0.67, 0.64, 0.58, 0.52], { format: { ...PLAIN_FORMAT, decimals: 0 } });
const at = (value: number, more: Partial<VisualData> = {}) => sampleData([value], more);
const many = (count: number) => sampleData(Array.from({ length: count }, (_, i) => 100 - i * 3));
const zones = (...edges: (number | null)[]): Visual["zones"] =>
  edges.map((to, i) => ({ to, word: `z${i}`, tone: (["poor", "watch", "good"] as const)[i] }));

interface Seen {
  kind?: string;
  value?: string;
  data?: VisualData;
  more?: Partial<Visual>;
  proofs?: SettledProof[];
  stands?: Stand[];
}
/** The data with what the phrases of a visual say in numbers. */
const withPhrases = (data: VisualData, { zones: said, baseline }: Visual): VisualData => ({
  ...data,
  zones: said.map((z, i) => ({ ...z, to: typeof z.to === "object" ? null : z.to, at: i, isMovable: true })),
  baseline: baseline && "number" in baseline ? baseline.number : null,
});
const facts = ({
  kind = "donut",
  value = "riders",
  data = SIX,
  more = {},
  proofs = [],
  stands = [],
}: Seen): Facts => {
  const visual = newVisual({ id: "v", name: "V", kind, value, split: { column: "route" }, ...more });
  const design = { palettes: [], finishes: [], pictures: [] };
  const of = project.measures.find((m) => m.id === visual.value);
  const told = of ? addsUp(of, project) : "yes";
  const drawn = { ...withPhrases(data, visual), addsUp: areParts(told, data, data.isCut) };
  return { visual, project, design, data: drawn, proofs, stands };
};
/** A place of so many columns and rows on a board. */
const stand = (w: number, h: number, at = 0): Stand => ({
  board: newBoard({ id: `b${at}`, name: "Overview" }),
  tile: madeTile("t", "v", { w, h }),
});
const proof = (of: string, holds: boolean | null): SettledProof => ({
  measure: project.measures.find((m) => m.id === of) ?? project.measures[0],
  proof: { id: `proof of ${of}`, type: "equals", value: 1, tolerance: 0, filters: [] },
  holds,
  text: "is 2, not 1; off by 1",
});

const outOfReach: VisualData = {
  ...SIX,
  own: { target: "The twice", baseline: null },
  outOfReach: { by: "split", why: "plan cannot be split by route." },
  rows: SIX.rows.map((r) => ({ ...r, target: null })),
};

/** For each rule, what it finds something in, and what lies near to that and is well. */
const CASES: Record<string, { found: Seen[]; well: Seen[] }> = {
  "failed proof": {
    found: [
      { proofs: [proof("riders", false)] },
      { value: "twice", kind: "number", proofs: [proof("riders", false)] },
    ],
    well: [{ proofs: [proof("riders", true), proof("mean", false)] }, { proofs: [proof("riders", null)] }],
  },
  "summed share": {
    found: [{ kind: "number", value: "load" }],
    well: [{ kind: "number", value: "share" }, { kind: "number" }, { kind: "number", value: "tax" }],
  },
  "percents for shares": {
    found: [
      { kind: "gauge", value: "share", more: { target: { number: 70 } } },
      { kind: "gauge", value: "share", more: { zones: zones(60, 90, null) } },
    ],
    well: [
      { kind: "gauge", value: "share", more: { target: { number: 0.7 }, zones: zones(0.6, 1.2, null) } },
      { kind: "gauge", more: { target: { number: 70 } } },
    ],
  },
  "shares for percents": {
    found: [{ kind: "gauge", value: "points", data: at(64), more: { target: { number: 0.7 } } }],
    well: [
      { kind: "gauge", value: "points", data: at(64), more: { target: { number: 70 } } },
      { kind: "gauge", data: at(64), more: { target: { number: 0.7 } } },
    ],
  },
  "hundredfold percent": {
    found: [
      { kind: "number", value: "hundredfold", data: at(82.833, { format: PERCENT_FORMAT }) },
      { kind: "number", value: "counted", data: at(83, { format: PERCENT_FORMAT }) },
    ],
    well: [
      { kind: "number", value: "hundredfold", data: at(0.828, { format: PERCENT_FORMAT }) },
      { kind: "number", value: "share", data: at(0.83, { format: PERCENT_FORMAT }) },
      { kind: "number", value: "mean", data: at(8.3) },
    ],
  },
  "grains that do not meet": {
    found: [
      {
        kind: "rounded bars",
        data: { ...SIX, coarse: [{ table: "plan", column: "month", grain: "month", by: "week" }] },
        more: { split: { column: "date", by: "week" }, order: { by: "split", order: "asc" } },
      },
    ],
    well: [{ kind: "rounded bars", more: { split: { column: "date", by: "week" } } }],
  },
  "time out of order": {
    found: [
      { kind: "rounded bars", more: { split: { column: "date", by: "month" } } },
      {
        kind: "rounded bars",
        more: { split: { column: "date", by: "year" }, order: { by: { measure: "mean" }, order: "asc" } },
      },
    ],
    well: [
      {
        kind: "rounded bars",
        more: { split: { column: "date", by: "month" }, order: { by: "split", order: "desc" } },
      },
      { kind: "rounded bars" },
    ],
  },
  "zones off the scale": {
    found: [
      {
        kind: "gauge",
        value: "share",
        data: at(0.6, { format: PERCENT_FORMAT }),
        more: { zones: zones(1.4, 1.8, null) },
      },
      {
        kind: "gauge",
        data: at(60, { minimum: 50, maximum: 100 }),
        more: { zones: zones(14, 18, null), minimum: { number: 50 }, maximum: { number: 100 } },
      },
    ],
    well: [
      { kind: "gauge", data: at(60), more: { zones: zones(40, 900, null) } },
      {
        kind: "gauge",
        value: "share",
        data: at(0.6, { format: PERCENT_FORMAT }),
        more: { zones: zones(0.4, 1, null) },
      },
      { kind: "gauge", more: { zones: zones(0.5, 0.7, null), dials: { "zones.edges": "share" } } },
    ],
  },
  "own targets": {
    found: [
      { kind: "progress bar", more: { target: { measure: "twice" }, changed: ["own targets"] } },
      { kind: "lollipop", more: { baseline: { measure: "mean" }, changed: ["own targets"] } },
    ],
    well: [
      { kind: "progress bar", more: { target: { measure: "twice" } } },
      {
        kind: "progress bar",
        more: { target: { measure: "twice", over: "whole" }, changed: ["own targets"] },
      },
      { kind: "rounded bars", more: { target: { measure: "twice" }, changed: ["own targets"] } },
    ],
  },
  "target out of reach": {
    found: [
      { kind: "progress bar", data: outOfReach, more: { target: { measure: "twice" } } },
      {
        kind: "gauge",
        data: { ...SIX, outOfReach: { by: "filter", why: "plan has nothing that means route." } },
        more: { target: { measure: "twice" } },
      },
    ],
    well: [{ kind: "progress bar", more: { target: { measure: "twice" } } }],
  },
  "parts that do not add up": {
    found: [
      { value: "mean" },
      {
        kind: "capsule stack",
        value: "mean",
        data: seriesData([
          [1, 2],
          [3, 4],
        ]),
      },
    ],
    well: [
      {},
      { value: "twice" },
      { kind: "rounded bars", value: "mean" },
      { kind: "capsule stack", value: "mean" },
    ],
  },
  "negative parts": {
    found: [{ data: sampleData([5, -2, 3]) }, { kind: "rose", data: sampleData([5, -2]) }],
    well: [{}, { kind: "rounded bars", data: sampleData([5, -2, 3]) }],
  },
  "many slices": {
    found: [{ data: many(12) }, { kind: "waffle", data: many(9) }],
    well: [{ data: many(8) }, { kind: "rounded bars", data: many(40) }],
  },
  "thin slices": {
    found: [{ data: sampleData([900, 80, 6, 5]) }],
    well: [{ data: sampleData([900, 80, 6]) }, { kind: "rounded bars", data: sampleData([900, 80, 6, 5]) }],
  },
  "near-equal slices": {
    found: [{ data: sampleData([26, 25, 25, 24]) }],
    well: [{ data: sampleData([50, 25, 15, 10]) }, { data: sampleData([34, 33, 33]) }],
  },
  "past the scale": {
    found: [
      { kind: "gauge", data: at(12, { maximum: 10 }), more: { maximum: { number: 10 } } },
      { kind: "gauge", data: at(-2, { minimum: 0 }), more: { minimum: { number: 0 } } },
    ],
    well: [
      { kind: "gauge", data: at(9, { maximum: 10, minimum: 0 }) },
      { kind: "gauge", data: at(12) },
    ],
  },
  "broken zones": {
    found: [
      { kind: "gauge", data: at(5), more: { zones: zones(8, 4, null) } },
      { kind: "gauge", data: at(5), more: { zones: zones(4, 8, 9) } },
    ],
    well: [
      { kind: "gauge", data: at(5), more: { zones: zones(4, 8, null) } },
      { kind: "gauge", data: at(5) },
    ],
  },
  "two scales": {
    found: [
      {
        kind: "nested bars",
        data: { ...SIX, second: { label: "S", format: SIX.format, total: null } },
        more: { dials: { "scale.of": "two" }, size: { width: 200, height: 100 } },
      },
    ],
    well: [
      { kind: "nested bars", data: { ...SIX, second: { label: "S", format: SIX.format, total: null } } },
      {
        kind: "nested bars",
        data: { ...SIX, second: { label: "S", format: SIX.format, total: null } },
        more: { dials: { "scale.of": "two" } },
      },
    ],
  },
  "baseline not zero": {
    found: [
      { kind: "lollipop", more: { dials: { "domain.start": "near" } } },
      { kind: "lollipop", more: { baseline: { number: 20 } } },
    ],
    well: [{ kind: "lollipop" }],
  },
  "colours too near": {
    found: [
      { more: { categoryColours: { "Ferrow Isle": "#c0392b", "North Quay": "#c23b2d" } } },
      { more: { categoryColours: { "Ferrow Isle": "#a03c30", "North Quay": "#5f5c2c" } } },
    ],
    well: [
      {},
      { kind: "waffle" },
      {
        kind: "rounded bars",
        more: { categoryColours: { "Ferrow Isle": "#c0392b", "North Quay": "#c23b2d" } },
      },
    ],
  },
  "too small for its tile": {
    found: [{ stands: [stand(2, 14)] }, { kind: "progress ring", stands: [stand(12, 63), stand(2, 14, 1)] }],
    well: [{ stands: [stand(4, 42)] }, {}, { kind: "gauge", data: at(5), stands: [stand(4, 42)] }],
  },
  "stale caption": {
    found: [{ more: { title: "The mean by route" } }],
    well: [
      { more: { title: "The riders by route" } },
      { more: { title: "{measure} by {split}" } },
      { more: { title: "The meaning of it" } },
      // The measure's own name holds that of the other.
      { value: "mean twice", more: { title: "The mean by route" } },
    ],
  },
  "ramp on bars": {
    found: [{ kind: "rounded bars", more: { dials: { "colours.by": "ramp" } } }],
    well: [{ kind: "rounded bars" }, { kind: "rose", more: { dials: { "colours.by": "ramp" } } }],
  },
  "ramp within bars": {
    found: [
      {
        kind: "rounded bars",
        more: { dials: { "surface.shade": "ramp", "surface.from": "#ffcc00", "surface.middle": "#ff0000" } },
      },
    ],
    well: [
      { kind: "rounded bars", more: { dials: { "surface.shade": "ramp" } } },
      { kind: "rounded bars", more: { dials: { "surface.from": "#ffcc00" } } },
      { kind: "rose", more: { dials: { "surface.shade": "ramp", "surface.from": "#ffcc00" } } },
      {
        kind: "progress bar",
        data: at(5),
        more: { dials: { "surface.shade": "ramp", "surface.from": "#ffcc00" } },
      },
    ],
  },
  "numbers alike": {
    found: [
      { kind: "lollipop", data: RATES, more: { dials: { "figures.decimals": "0" } } },
      {
        kind: "rounded bars",
        data: RATES,
        more: { dials: { "figures.decimals": "0", "labels.content": "value" } },
      },
      { kind: "rounded bars", value: "whole", data: RATES },
    ],
    well: [
      { kind: "lollipop", data: RATES, more: { dials: { "figures.decimals": "2" } } },
      { kind: "lollipop", data: RATES, more: { dials: { "figures.decimals": "automatic" } } },
      // Written nowhere, or alike and drawn alike.
      {
        kind: "rounded bars",
        data: RATES,
        more: { dials: { "figures.decimals": "0", "labels.content": "none" } },
      },
      {
        kind: "rounded bars",
        data: sampleData([5_000_001, 5_000_002]),
        more: { dials: { "figures.units": "million", "figures.decimals": "1" } },
      },
      { kind: "rounded bars", data: sampleData([7, 7, 7]), more: { dials: { "figures.decimals": "0" } } },
      { kind: "number", data: at(5), more: { dials: { "figures.decimals": "0" } } },
    ],
  },
  "red and green alone": {
    found: [
      { kind: "gauge", data: at(5), more: { zones: zones(4, 8, null), dials: { "zones.words": false } } },
    ],
    well: [{ kind: "gauge", data: at(5), more: { zones: zones(4, 8, null) } }],
  },
  "pale labels": {
    found: [{ more: { dials: { "labels.colour": "#dddddd", "frame.background": "#ffffff" } } }],
    well: [{ more: { dials: { "labels.colour": "#222222", "frame.background": "#ffffff" } } }],
  },
  "more categories than colours": {
    found: [{ kind: "rounded bars", data: many(40), more: { dials: { "colours.by": "category" } } }],
    well: [{ kind: "rounded bars", data: many(40) }, {}],
  },
};

const found = (seen: Seen) => review(facts(seen));

describe("the review of a visual", () => {
  it("has a case for every rule", () => {
    expect(Object.keys(CASES)).toEqual(expect.arrayContaining(RULES.map((r) => r.id)));
    expect(RULES.length).toBeGreaterThanOrEqual(18);
  });

  describe.each(RULES.map((r) => r.id))("%s", (id) => {
    it("is found where it is, with what it is and why it matters, and a mend that mends it", () => {
      for (const seen of CASES[id].found) {
        const finding = found(seen).find((f) => f.rule === id);
        expect(finding, JSON.stringify(seen).slice(0, 200)).toBeDefined();
        expect(finding?.text).toMatch(/\.$/);
        expect(finding?.why).toMatch(/\.$/);
        if (!finding?.mend || finding.mend.edit.type === "change measure") continue;
        const boards = (seen.stands ?? []).map(({ board, tile }, i) => ({
          ...board,
          id: `b${i}`,
          tiles: [tile],
        }));
        const before = { ...project, visuals: [facts(seen).visual], boards };
        const after = edited(before, finding.mend.edit);
        expect(after).not.toEqual(before);
        const stands = [...standsOf(after.boards).values()].flat();
        const { id: _id, name: _name, kind, ...more } = after.visuals[0];
        // What depends on the answer is mended when it comes; what is drawn from the same data, at once.
        const isAnswered =
          "keep" in finding.mend.edit ||
          /Keep the first|scale out|against the whole|^By month/.test(finding.mend.label);
        if (!isAnswered) expect(found({ ...seen, kind, more, stands }).map((f) => f.rule)).not.toContain(id);
      }
    });

    it("is not found where all is well", () => {
      for (const seen of CASES[id].well)
        expect(
          found(seen).map((f) => f.rule),
          JSON.stringify(seen).slice(0, 200),
        ).not.toContain(id);
    });
  });

  it("looks at a tile in the look of its board", () => {
    const small = { id: "small", name: "Small", base: "plain", dials: { "labels.size": 9 } };
    const dressed = stand(4, 42);
    dressed.board = { ...dressed.board, look: { ...dressed.board.look, finish: "small" } };
    const rules = (stands: Stand[]) => {
      const given = facts({ stands });
      const design = { ...given.design, finishes: [small] };
      return review({ ...given, design }).map((f) => f.rule);
    };
    expect(rules([stand(4, 42)])).not.toContain("too small for its tile");
    expect(rules([dressed])).toContain("too small for its tile");
  });

  it("says nothing of what is not drawn", () => {
    const seen = { data: { ...many(40), problem: "Choose a measure" } };
    expect(found(seen)).toEqual([]);
    expect(review({ ...facts({}), data: null })).toEqual([]);
    expect(found({ value: "gone" })).toEqual([]);
  });

  it("names a failed proof by its measure, and that of what stands behind", () => {
    expect(found({ value: "twice", kind: "number", proofs: [proof("riders", false)] })).toMatchObject([
      {
        id: "failed proof proof of riders",
        text: "A test of The riders fails: is 2, not 1; off by 1.",
        measure: { id: "riders" },
      },
    ]);
  });

  it("takes the mean of shares that were summed", () => {
    const [finding] = found({ kind: "number", value: "load", data: at(7.79, { format: PERCENT_FORMAT }) });
    expect(finding.mend?.edit).toMatchObject({ id: "load", change: { formula: "avg(load_rate)" } });
  });
});
