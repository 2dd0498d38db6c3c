import { expect, it } from "vitest";
import { madeTable, projectTable } from "@/testing/made-table";
import { rowsBehind } from "../engine/rows-behind";
import { runQueries } from "../engine/run";
import { querySchema, type Result } from "../plan/query";
import { newMeasure } from "../project/defaults";
import { scopeOf } from "../project/names";
import { emptyProject, type Project } from "../project/schema";
import { filterText } from "../rows/filter-text";
import { wordingOf } from "../rows/key-labels";
import { behindTried, type Trial, trialQuery, triedGroups } from "./tried-answers";

const TRIPS = madeTable("trips", {
  route: ["text", ["North", "North", "South", "South", null, "Gone"]],
  year: ["number", [2024, 2025, 2024, 2025, 2025, 2025]],
  people: ["number", [1, 2, 4, 8, 16, 32]],
});
const ROUTES = madeTable("routes", {
  route: ["text", ["North", "South"]],
  region: ["text", ["upper", "lower"]],
});
const project: Project = {
  ...emptyProject("P"),
  tables: [TRIPS, ROUTES].map(projectTable),
  links: [{ id: "l", table: "trips", column: "route", to: "routes", key: "route" }],
  measures: [newMeasure({ id: "m", name: "m", label: "People", table: "trips", formula: "sum(people)" })],
};
const catalog = { scope: scopeOf(project), inputs: {}, tables: [TRIPS, ROUTES], today: "2026-01-01" };
const trial = (more: Partial<Trial>): Trial => ({
  measure: "m",
  table: "trips",
  splits: [],
  filters: [],
  lower: false,
  ...more,
});
const groups = (of: Trial) => {
  const [answer] = runQueries([querySchema.parse(trialQuery(of))], catalog);
  return triedGroups(of, answer as Result, wordingOf(project));
};

it("a measure is tried by a split, by two, and under filters, the best first", () => {
  const by = (of: Partial<Trial>) => groups(trial(of)).map((g) => [g.label, g.count, g.value]);
  expect(by({ splits: [{ column: "route" }] })).toEqual([
    ["Gone", 1, 32],
    ["(none)", 1, 16],
    ["South", 2, 12],
    ["North", 2, 3],
  ]);
  expect(
    by({ splits: [{ column: "route" }], filters: [{ column: "year", in: [2024] }], lower: true }),
  ).toEqual([
    ["North", 1, 1],
    ["South", 1, 4],
  ]);
  expect(by({ splits: [{ column: "route" }, { column: "year" }] })).toContainEqual(["South · 2025", 1, 8]);
  expect(by({})).toEqual([]);
});

it("the rows behind a group are its rows and no others, rows without a match too", () => {
  for (const splits of [
    [{ column: "routes.region" }],
    [{ column: "route" }, { column: "year" }],
    [{ column: "year" }, { column: "routes.region" }],
  ]) {
    const of = trial({ splits });
    const found = groups(of);
    expect(found.reduce((sum, g) => sum + g.count, 0)).toBe(6);
    for (const group of found) {
      const { tables, measures } = rowsBehind(querySchema.parse(behindTried(of, group)), catalog);
      expect([group.label, tables[0].count, measures[0].value]).toEqual([
        group.label,
        group.count,
        group.value,
      ]);
    }
    expect(new Set(found.map((g) => g.id)).size).toBe(found.length);
  }
  expect(rowsBehind(querySchema.parse(behindTried(trial({}), null)), catalog).tables[0].count).toBe(6);
});

it("a stretch of time is called in words where a filter keeps it", () => {
  expect(filterText({ column: "on", by: "year", in: ["2024-01-01"] })).toBe("2024");
  expect(filterText({ column: "on", by: "month", in: ["2024-03-01", "2024-04-01"] })).toBe(
    "Mar 2024 and Apr 2024",
  );
  expect(filterText({ column: "on", by: "year", not: [2024] })).toBe("on without 2024");
  expect(filterText({ column: "on", in: ["2024-01-01"] })).toBe("2024-01-01");
});
