import { describe, expect, it } from "vitest";
import { answeredData } from "@/testing/answered";
import { visualOf } from "@/testing/craft/cases";
import { madeTable, projectTable } from "@/testing/made-table";
import { NEW_FORMAT } from "../base/number-format";
import type { Query } from "../plan/query";
import { newMeasure } from "../project/defaults";
import { emptyProject, type Project, type Visual } from "../project/schema";
import type { VisualData } from "../rows/visual-data";
import type { Scene } from "../scene/marks";
import { sceneOf } from "./picture";

const ROUTES = ["North", "South", "East", "West"];
const ROWS = ROUTES.flatMap((route, i) =>
  ["2023", "2024", "2025"].map((year, k) => ({
    route,
    year,
    people: 4000 / (i + 1) / (k * k * 3 + 1),
    rate: 0.5 + i / 100 + k / 7,
  })),
);
const TRIPS = madeTable("trips", {
  route: ["text", ROWS.map((r) => r.route)],
  year: ["text", ROWS.map((r) => r.year)],
  people: ["number", ROWS.map((r) => Math.round(r.people))],
  rate: ["number", ROWS.map((r) => r.rate)],
});
const measure = (id: string, formula: string) =>
  newMeasure({ id, name: id, label: id, table: "trips", formula, format: NEW_FORMAT });
const PROJECT: Project = {
  ...emptyProject("P"),
  tables: [projectTable(TRIPS)],
  measures: [
    measure("people", "sum(people)"),
    measure("rate", "avg(rate)"),
    measure("goal", "sum(people) * 3"),
  ],
};

function drawn(visual: Visual, filters: Query["filters"]): { scene: Scene; data: VisualData } {
  const data = answeredData(visual, PROJECT, [TRIPS], filters);
  return { scene: sceneOf(visual, data), data };
}

/** The filters that a reader goes through: none, a year after the other, a route, both. */
const PATH: Query["filters"][] = [
  [],
  [{ column: "year", in: ["2023"] }],
  [{ column: "year", in: ["2025"] }],
  [{ column: "route", in: ["North"] }],
  [
    { column: "year", in: ["2024"] },
    { column: "route", in: ["North", "East"] },
  ],
];

const BARS = [
  "radial bars",
  "progress bar",
  "progress ring",
  "rounded bars",
  "lollipop",
  "capsule stack",
  "nested bars",
] as const;
const ZONES: Visual["zones"] = [
  { to: 3000, word: "a", tone: "poor" },
  { to: null, word: "b", tone: "good" },
];

/** How many pixels, or degrees, a row has for each unit of its value. */
function unitOf({ scene }: ReturnType<typeof drawn>, axis: "width" | "height"): number[] {
  const base = scene.marks.find((line) => line.id === "baseline");
  return scene.marks.flatMap((m): number[] => {
    if (!m.shows || !(m.shows.value > 0)) return [];
    const { value } = m.shows;
    if (m.type === "sector") return [(m.end - m.start) / value];
    if (m.type === "rect") return [m[axis] / value];
    if (m.type !== "circle" || base?.type !== "line") return [];
    return [Math.abs(m.cy - base.points[0][1]) / value];
  });
}

describe("what nobody set stands still while a board is filtered", () => {
  it.each(BARS)("the scale of: %s", (kind) => {
    const visual = visualOf(kind, {}, { value: "people", split: { column: "route" } });
    const axis = kind === "progress bar" || kind === "nested bars" ? "width" : "height";
    const [first, ...others] = PATH.map((filters) => unitOf(drawn(visual, filters), axis)[0] ?? 0);
    expect(first).toBeGreaterThan(0);
    // Room for labels can differ; a scale that followed the filter would be off by twice and more.
    for (const unit of others) expect(Math.abs(Math.log(unit / first))).toBeLessThan(0.4);
  });

  it.each([[[]], [ZONES]])("the scale of a gauge, with zones %o", (zones) => {
    const gauge = visualOf("gauge", {}, { value: "people", zones });
    const scales = PATH.map(
      (filters) => drawn(gauge, filters).scene.description.match(/from 0 to [^,]+/)?.[0],
    );
    expect(scales[0]).toBeDefined();
    expect(new Set(scales).size).toBe(1);
  });

  it("the scale of a gauge whose target is a measure", () => {
    const gauge = visualOf("gauge", {}, { value: "people", target: { measure: "goal" } });
    const all = PATH.map((filters) => drawn(gauge, filters));
    const scales = all.map(({ scene }) => scene.description.match(/from 0 to [^,]+/)?.[0]);
    expect(new Set(scales).size).toBe(1);
    // The target itself is that of what is filtered.
    expect(new Set(all.map(({ data }) => data.target)).size).toBe(PATH.length);
  });

  it("the digits of values", () => {
    const visual = visualOf("rounded bars", {}, { value: "rate", split: { column: "route" } });
    const formats = PATH.map((filters) => drawn(visual, filters).data.format.decimals);
    expect(new Set(formats).size).toBe(1);
  });

  it("but what the visual filters itself is its own", () => {
    const own = visualOf("gauge", {}, { value: "people", filters: [{ column: "year", in: ["2025"] }] });
    expect(drawn(own, []).data.atRest).toBeNull();
    expect(drawn(own, PATH[3]).data.atRest?.total).toBe(drawn(own, []).data.total);
  });

  it("an end that the sentence names goes before", () => {
    const visual = visualOf(
      "radial bars",
      {},
      { value: "people", split: { column: "route" }, maximum: { number: 8000 } },
    );
    expect(drawn(visual, []).scene.description).toContain("a full sweep is 8\u2009000");
  });
});
