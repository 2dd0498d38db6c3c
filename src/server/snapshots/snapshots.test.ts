import { mkdirSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { inflateRawSync } from "node:zlib";
import fc from "fast-check";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { Filter, QueryInput } from "@/core/plan/query";
import { newFilter, newInput, newMeasure, newVisual } from "@/core/project/defaults";
import { boardSchema, emptyProject, type Project, projectSchema, tableSchema } from "@/core/project/schema";
import { askableOf } from "@/core/snapshot/askable";
import { type PackedBytes, readSnapshot, type Snapshot } from "@/core/snapshot/snapshot";
import { toQuery } from "@/core/view/query";
import { answerEngine } from "@/embed/engine";
import type { GivenTable } from "@/embed/engine-protocol";
import type { Answer } from "@/present/answers";
import { madeTile } from "@/testing/made-board";
import { answerQueries } from "../results";
import { settings } from "../settings";
import { createProject, registerTable } from "../store/projects";
import { TableWriter } from "../store/table-files";
import { aloneFile } from "./alone-file";
import { makeSnapshot } from "./make-snapshot";

/** So many that fares, of which there are 10,000, have no cell each. */
const ROWS = 40_000;
const ROUTES = ["North Quay", "Old Pier", "Marl Point", "constructor", "__proto__", "toString"];
const CELLS = Array.from({ length: ROWS }, (_, i) => [
  ROUTES[(i * 7) % ROUTES.length],
  new Date(Date.UTC(2025, 0, 1 + ((i * 7) % 360))).toISOString().slice(0, 10),
  String(((i * 104_729) % 10_000) / 100),
  String((i * 17) % 97),
  // What must not leave: a hidden text, a hidden number, and a text that no visual uses.
  `secret-${(i * 31) % 1009}`,
  String(700_000 + ((i * 13) % 9973)),
  `passenger-${i}`,
]);

const measure = (id: string, formula: string) =>
  newMeasure({ id, name: id, label: id, table: "trips", formula });
const split = { column: "route" };

let project: Project;
let projectId: string;

beforeAll(() => {
  settings.data = mkdtempSync(join(tmpdir(), "cavlo-snapshots-"));
  mkdirSync(join(settings.data, "tables"));
  const writer = new TableWriter("trips-rows", 7);
  for (const cells of CELLS) writer.add(cells);
  writer.finish();
  const table = tableSchema.parse({
    id: "trips-rows",
    name: "trips",
    rows: ROWS,
    columns: [
      { name: "route", reading: { type: "text" } },
      { name: "day", reading: { type: "date" } },
      { name: "fare", reading: { type: "number" } },
      { name: "wait", reading: { type: "number" } },
      { name: "keeper", reading: { type: "text" }, hidden: true },
      { name: "cost", reading: { type: "number" }, hidden: true },
      { name: "who", reading: { type: "text" } },
    ],
    derived: [{ name: "long_wait", formula: "wait > 50" }],
    source: { file: "private name of a file.csv" },
  });
  const visual = (id: string, value: string, more: object = {}) =>
    newVisual({ id, name: id, kind: "donut", value, split, ...more });
  project = projectSchema.parse({
    ...emptyProject("Ferries"),
    tables: [table],
    measures: [
      measure("revenue", "sum(fare)"),
      measure("rate", "count(*) filter (where long_wait) / count(*)"),
      measure("middle", "median(wait)"),
      measure("margin", "sum(fare) - sum(cost)"),
      measure("scaled", "sum(fare) * :factor"),
      measure("unused", "count(distinct keeper)"),
    ],
    inputs: [newInput({ id: "factor", name: "factor", label: "Factor", type: "number", value: 2 })],
    visuals: [
      visual("by-route", "revenue"),
      visual("late", "rate", { steps: [{ column: "day", by: "month" }] }),
      visual("waits", "middle"),
      visual("gain", "margin"),
      visual("bigger", "scaled"),
      visual("elsewhere", "unused"),
    ],
    boards: [
      boardSchema.parse({
        id: "b",
        name: "Season",
        tiles: ["by-route", "late", "waits", "gain", "bigger"].map((id) => madeTile(`t-${id}`, id)),
        controls: [
          newFilter({ id: "c1", label: "Route", table: "trips", column: "route" }),
          newFilter({ id: "c2", label: "Day", table: "trips", column: "day", as: "stretch" }),
          newFilter({ id: "c3", label: "Fare", table: "trips", column: "fare", as: "stretch" }),
        ],
      }),
    ],
  });
  projectId = createProject(project).id;
  registerTable(projectId, { id: "trips-rows", rows: ROWS, columns: 7 });
});
afterAll(() => rmSync(settings.data, { recursive: true }));

const made = (travel: "answers" | "rows", taken: Parameters<typeof askableOf>[1] = { board: "b" }) =>
  makeSnapshot(projectId, project, { taken, travel });

/** All that a snapshot holds, as bytes that can be searched: its text, and what is packed in it. */
function searchable(snapshot: Snapshot): string {
  const inflated = ({ deflated }: PackedBytes) =>
    inflateRawSync(Buffer.from(deflated, "base64")).toString("latin1");
  return [
    JSON.stringify(snapshot),
    ...[snapshot.index, snapshot.rows].flatMap((p) => (p ? inflated(p) : [])),
  ].join("\n");
}

let ids = 0;
/** Asks a snapshot as a page would. */
async function asked(snapshot: Snapshot, queries: QueryInput[], given: GivenTable[] = []): Promise<Answer[]> {
  const id = ++ids;
  const { index, rows, today } = snapshot;
  const held = { project: snapshot.project, today, index, rows, given, patterns: "" };
  expect(await answerEngine({ type: "hold", id, held })).toEqual({ notes: [] });
  const answer = await answerEngine({ type: "answer", id, queries });
  if (!("answers" in answer)) throw new Error(JSON.stringify(answer));
  return answer.answers;
}

const untimed = (answers: unknown[]) => answers.map((a) => ({ ...(a as object), ms: 0, scanned: 0 }));
const query = (id: string, filters: Filter[] = [], inputs = {}): QueryInput => {
  const visual = project.visuals.find((v) => v.id === id);
  return (visual && toQuery(visual, project, filters, inputs)) as QueryInput;
};

describe("a snapshot", () => {
  it("holds no cell of a hidden column and no row where only answers travel", async () => {
    const { snapshot, about } = await made("answers");
    const bytes = searchable(snapshot);
    expect(bytes).toContain("North Quay");
    for (const leak of ["secret-", "passenger-", "private name", "keeper"]) expect(bytes).not.toContain(leak);
    // Sums of a hidden column would tell of it as well: what needs them stays as it begins.
    expect(about.left).toEqual(["trips.cost"]);
    expect(about.limits).toContainEqual({ of: "gain", by: null });
    expect(
      snapshot.index && inflateRawSync(Buffer.from(snapshot.index.deflated, "base64")).toString("latin1"),
    ).not.toContain("cost");
    expect(snapshot.rows).toBeNull();
    expect(about.rows).toEqual([]);
  });

  it("lists no value of a hidden column, though a visual is split by it and a control filters by it", async () => {
    const shown = {
      ...newVisual({ id: "v", name: "v", kind: "donut", value: "revenue" }),
      split: { column: "keeper" },
    };
    const board = boardSchema.parse({
      id: "k",
      name: "Keepers",
      tiles: [madeTile("t", "v")],
      controls: [newFilter({ id: "c", label: "Keeper", table: "trips", column: "keeper" })],
    });
    const told = { ...project, visuals: [shown], boards: [board] };
    told.categories = [{ id: "x", table: "trips", column: "keeper", order: ["secret-1"], colours: [] }];
    for (const travel of ["answers", "rows"] as const) {
      const { snapshot, about } = await makeSnapshot(projectId, told, { taken: { board: "k" }, travel });
      expect(searchable(snapshot)).not.toContain("secret-");
      expect(about.limits).toContainEqual({ of: "v", by: null });
      expect(snapshot.answers.map(([, answer]) => "error" in answer)).toEqual([true, true]);
    }
  });

  it("holds the rows of the columns that are used and of no other where they travel", async () => {
    const { snapshot, about } = await made("rows");
    const bytes = searchable(snapshot);
    for (const leak of ["secret-", "passenger-", "private name"]) expect(bytes).not.toContain(leak);
    expect(about.rows).toEqual([{ table: "trips", rows: ROWS, columns: expect.any(Array) }]);
    expect(about.rows[0].columns.toSorted()).toEqual(["day", "fare", "route", "wait"]);
    expect(about.limits).toEqual([{ of: "gain", by: null }]);
    const [margin] = await asked(snapshot, [query("gain")]);
    expect(margin).toHaveProperty("error");
  });

  it("asks as it begins just what it has answers to, word for word", async () => {
    const { snapshot } = await made("answers");
    const known = new Set(snapshot.answers.map(([q]) => JSON.stringify(q)));
    const { begin } = askableOf(snapshot.project, { board: "b" });
    for (const { query } of begin) expect(known).toContain(JSON.stringify(query));
  });

  it("says what answers alone do not tell: medians, and stretches that end within a bin", async () => {
    const { snapshot, about } = await made("answers");
    expect(about.limits).toContainEqual({ of: "waits", by: null });
    // A stretch of fares is told by whole bins alone: the rows at their edges stay behind.
    expect(about.limits).toContainEqual({ of: "by-route", by: ["trips.fare"] });
    const [median, revenue] = await asked(snapshot, [query("waits"), query("by-route")]);
    expect(median).toEqual({ error: "No answer to this travelled along." });
    expect(revenue).not.toHaveProperty("error");
  });

  it.each(["answers", "rows"] as const)(
    "answers as the server does whatever is filtered, where %s travel",
    async (travel) => {
      const { snapshot } = await made(travel);
      const day = fc
        .integer({ min: 1, max: 28 })
        .map((d) => `2025-${String(1 + (d % 12)).padStart(2, "0")}-${String(d).padStart(2, "0")}`);
      const filters = fc.array(
        fc.oneof(
          fc.subarray(ROUTES).map((some): Filter => ({ column: "trips.route", in: some })),
          fc
            .tuple(day, day)
            .map((days) => days.toSorted())
            .map(([from, to]): Filter => ({ column: "trips.day", from, to })),
        ),
        { maxLength: 2 },
      );
      await fc.assert(
        fc.asyncProperty(filters, fc.integer({ min: 1, max: 9 }), async (some, factor) => {
          const queries = [query("by-route", some), query("late", some), query("bigger", some, { factor })];
          const here = await asked(snapshot, queries);
          const there = await answerQueries(projectId, project, queries);
          expect(untimed(here)).toEqual(untimed(there));
        }),
        { numRuns: 25 },
      );
    },
    120_000,
  );

  it("answers over rows that a page gives as it answers over its own", async () => {
    const { snapshot } = await made("rows");
    const cells = (at: number, type: "text" | "number") =>
      CELLS.map((row) => (type === "number" ? Number(row[at]) : row[at]));
    const given: GivenTable[] = [
      {
        name: "trips",
        rows: ROWS,
        columns: [
          { name: "route", cells: cells(0, "text") },
          { name: "day", cells: CELLS.map((row) => new Date(`${row[1]}T00:00:00Z`)) },
          { name: "fare", cells: Float64Array.from(CELLS, (row) => Number(row[2])) },
          { name: "wait", cells: cells(3, "number") },
        ],
      },
    ];
    const queries = ["by-route", "late", "waits"].map((id) =>
      query(id, [{ column: "trips.day", from: "2025-03-05", to: "2025-03-05" }]),
    );
    expect(untimed(await asked(snapshot, queries, given))).toEqual(untimed(await asked(snapshot, queries)));
  });

  it("of rows holds what derived columns are computed from", async () => {
    const { about } = await made("rows", { visuals: ["late"], filters: [] });
    expect(about.rows[0].columns.toSorted()).toEqual(["route", "wait"]);
  });

  it("of visuals is filtered by the columns that its maker chose", async () => {
    const taken = { visuals: ["by-route"], filters: [{ column: "trips.day", by: "month" as const }] };
    const { snapshot, about } = await made("answers", taken);
    expect(about.index?.keys.map((k) => k.name).toSorted()).toEqual(["trips.day by month", "trips.route"]);
    expect(Object.keys(about.example)).toEqual(["day by month"]);
    const march: Filter = { column: "trips.day", by: "month", in: ["2025-03-01"] };
    const [byMonth, byRow] = await asked(snapshot, [
      query("by-route", [march]),
      query("by-route", [{ column: "trips.wait", from: 3 }]),
    ]);
    expect(untimed([byMonth])).toEqual(
      untimed(await answerQueries(projectId, project, [query("by-route", [march])])),
    );
    expect(byRow).toHaveProperty("error");
    expect(snapshot.project.boards).toEqual([]);
    expect(snapshot.project.measures.map((m) => m.id)).toEqual(["revenue"]);
  });

  it("that is cut short, damaged, or of a later version says so", async () => {
    const { snapshot } = await made("answers");
    const text = JSON.stringify(snapshot);
    expect(readSnapshot(text).project.name).toBe("Ferries");
    expect(() => readSnapshot(text.slice(0, -200))).toThrow(/not whole/);
    expect(() => readSnapshot("<html>")).toThrow(/no snapshot/);
    expect(() => readSnapshot(JSON.stringify({ ...snapshot, version: 9 }))).toThrow(/version 9/);
    expect(() => readSnapshot(JSON.stringify({ ...snapshot, answers: undefined }))).toThrow(/damaged/);
    const { index } = snapshot;
    const short = {
      project: snapshot.project,
      today: snapshot.today,
      index: index && { ...index, size: index.size + 1 },
    };
    expect(
      await answerEngine({
        type: "hold",
        id: ++ids,
        held: { ...short, rows: null, given: [], patterns: "" },
      }),
    ).toMatchObject({ error: { code: "snapshot", message: expect.stringContaining("not whole") } });
    const damaged = { ...snapshot, index: index && { ...index, deflated: index.deflated.slice(0, 40) } };
    const held = {
      project: damaged.project,
      today: damaged.today,
      index: damaged.index,
      rows: null,
      given: [],
      patterns: "",
    };
    expect(await answerEngine({ type: "hold", id: ++ids, held })).toMatchObject({
      error: { code: "snapshot" },
    });
  });

  it("of what is not there is refused", async () => {
    await expect(made("answers", { board: "gone" })).rejects.toMatchObject({ status: 404 });
    await expect(made("answers", { visuals: ["by-route", "gone"], filters: [] })).rejects.toMatchObject({
      status: 404,
    });
  });

  it("as a file of its own holds nothing more, and ends what it begins", async () => {
    const { snapshot } = await made("answers");
    const hostile = JSON.stringify(snapshot).replaceAll("Old Pier", "</script><script>alert(1)</script>");
    const file = await aloneFile(hostile, "light");
    for (const leak of ["secret-", "passenger-", "private name"]) expect(file).not.toContain(leak);
    expect(file).not.toContain("<script>alert(1)");
    expect(file.indexOf('id="end"')).toBeGreaterThan(file.indexOf('id="code"'));
    expect(file).not.toMatch(/(?:src|href)="https?:/);
  });
});
