import { describe, expect, it } from "vitest";
import { answeredData } from "@/testing/answered";
import { madeTable, projectTable } from "@/testing/made-table";
import { PERCENT_FORMAT, PLAIN_FORMAT } from "../base/number-format";
import { newMeasure, newVisual } from "../project/defaults";
import { edited } from "../project/edits";
import { emptyProject, type Project, type Visual } from "../project/schema";
import { datumsOf } from "../scene/datums";
import { sceneOf } from "../view/picture";
import { review } from "./index";

const ROUTES = Array.from({ length: 14 }, (_, i) => `Route ${String.fromCharCode(65 + i)}`);
const ROWS = ROUTES.flatMap((route, i) =>
  Array.from({ length: 9 }, (_, k) => ({
    route,
    riders: 400 - 23 * i + 7 * k,
    late: (i * 5 + k) % 11,
    seats: 450,
  })),
);
const TRIPS = madeTable("trips", {
  route: ["text", ROWS.map((r) => r.route)],
  riders: ["number", ROWS.map((r) => r.riders)],
  late: ["number", ROWS.map((r) => r.late)],
  seats: ["number", ROWS.map((r) => r.seats)],
});
const measure = (id: string, formula: string, format = PLAIN_FORMAT) =>
  newMeasure({ id, name: id, label: id, table: "trips", formula, format });
const PROJECT: Project = {
  ...emptyProject("P"),
  tables: [projectTable(TRIPS)],
  measures: [
    measure("riders", "sum(riders)"),
    measure("part", "sum(riders) / total(sum(riders))", { ...PERCENT_FORMAT, decimals: 1 }),
    measure("load", "sum(riders) / sum(seats)", { ...PERCENT_FORMAT, decimals: 1 }),
    measure("lateness", "avg(late)", { ...PLAIN_FORMAT, decimals: 1 }),
    measure("swing", "sum(riders) - 2600"),
  ],
};

/** A visual as it is drawn from its own answer. */
function drawn(project: Project) {
  const [visual] = project.visuals;
  const data = answeredData(visual, project, [TRIPS]);
  return { visual, data, found: review({ visual, project, design: project, data, proofs: [], stands: [] }) };
}

/** What the tooltips of a picture say, by row and line. */
function figures(project: Project): Map<string, string> {
  const { visual, data } = drawn(project);
  const scene = sceneOf(visual, data, project);
  return new Map(
    datumsOf(scene).flatMap(({ datum: { key, lines } }) =>
      lines.map(({ label, value }): [string, string] => [`${key} ${label}`, value]),
    ),
  );
}

const visual = (kind: string, value: string, more: Partial<Visual> = {}) =>
  newVisual({ id: "v", name: "V", kind, value, split: { column: "route" }, ...more });
const FIRST_SIX = { first: 6, others: false };

const SEEN: [string, Visual, string[]][] = [
  ["a donut of many slices", visual("donut", "riders"), ["many slices"]],
  ["a donut of many shares", visual("donut", "part"), ["many slices"]],
  ["a donut of many averages", visual("donut", "lateness"), ["many slices", "parts that do not add up"]],
  ["a waffle of many parts", visual("waffle", "part"), ["many slices"]],
  ["a waffle of many rates", visual("waffle", "load"), []],
  ["a donut with parts below zero", visual("donut", "swing"), ["negative parts"]],
  [
    "bars of more categories than colours",
    visual("rounded bars", "part", { dials: { "colours.by": "category" } }),
    ["more categories than colours"],
  ],
  [
    "bars of rates in more categories than colours",
    visual("rounded bars", "load", { dials: { "colours.by": "category" } }),
    ["more categories than colours"],
  ],
  ["a donut of six of many", visual("donut", "riders", { keep: FIRST_SIX }), ["near-equal slices"]],
];

describe("a mend of the review, by its own answer", () => {
  it.each(SEEN)("%s", (_, before, rules) => {
    const project = { ...PROJECT, visuals: [before] };
    const { found } = drawn(project);
    expect(found.map((f) => f.rule)).toEqual(expect.arrayContaining(rules));
    const told = figures(project);
    for (const { rule, mend } of found) {
      if (!mend) continue;
      const after = edited(project, mend.edit);
      expect(
        drawn(after).found.map((f) => f.rule),
        `${rule}: ${mend.label}`,
      ).not.toContain(rule);
      // No figure that was said before is another one now.
      const now = [...figures(after)].filter(([line]) => told.has(line));
      expect(now.length).toBeGreaterThan(3);
      for (const [line, value] of now) expect(`${line}: ${value}`).toBe(`${line}: ${told.get(line)}`);
    }
  });

  it("tells shares of the whole where only the first rows are kept", () => {
    for (const kind of ["donut", "rose", "waffle"]) {
      const all = figures({ ...PROJECT, visuals: [visual(kind, "part")] });
      const some = figures({ ...PROJECT, visuals: [visual(kind, "part", { keep: FIRST_SIX })] });
      const shares = [...some].filter(([line]) => line.endsWith("Share"));
      expect(shares.length).toBe(6);
      for (const [line, value] of shares)
        expect(`${kind} ${line}: ${value}`).toBe(`${kind} ${line}: ${all.get(line)}`);
    }
  });

  it("leaves open what has no row, and says how much that is", () => {
    const project = { ...PROJECT, visuals: [visual("donut", "part", { keep: FIRST_SIX })] };
    const { data } = drawn(project);
    const scene = sceneOf(project.visuals[0], data, project);
    const shown = data.rows.reduce((sum, r) => sum + (r.value ?? 0), 0);
    const open = scene.marks.find((m) => m.id.startsWith("open:"));
    expect(open).toMatchObject({ type: "sector", part: "arc" });
    if (open?.type === "sector") expect((open.end - open.start) / 360).toBeCloseTo(1 - shown, 9);
    expect(scene.description).toMatch(/\d+\u2009% not shown/);
  });
});
