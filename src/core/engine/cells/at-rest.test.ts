import { expect, it } from "vitest";
import { madeTable, scopeColumns } from "@/testing/made-table";
import { querySchema, type Result } from "../../plan/query";
import { type Catalog, runQueries } from "../run";
import { buildCells } from "./build-cells";
import { answerFromCells } from "./cell-answer";

const trips = madeTable("trips", {
  route: ["text", ["a", "a", "b", "b", "c", "c"]],
  year: ["text", ["1", "2", "1", "2", "1", "2"]],
  people: ["number", [10, 20, 30, 5, 7, 2]],
});
const catalogOf = (formula: string): Catalog => ({
  tables: [trips],
  inputs: {},
  today: "2026-01-01",
  scope: {
    tables: [{ name: "trips", columns: scopeColumns(trips) }],
    measures: [{ name: "carried", formula, table: "trips" }],
    inputs: [],
  },
});
const query = (year: string) =>
  querySchema.parse({
    measures: [{ id: "carried" }],
    splits: [{ column: "route" }],
    filters: [{ column: "year", in: [year] }],
    atRest: [],
  });

it("says what a measure is before anything is filtered, from cells as from rows, filter after filter", () => {
  const sum = catalogOf("sum(people)");
  const { atRest: _, ...unfiltered } = query("1");
  const asked = { queries: [{ ...unfiltered, filters: [] }], touched: [{ column: "year" }], now: [] };
  const index = buildCells(asked, sum);
  for (const year of ["1", "2", "1"]) {
    const [scanned] = runQueries([query(year)], sum) as Result[];
    const [found] = answerFromCells([query(year)], index, sum);
    expect(found?.atRest).toEqual(scanned.atRest);
    expect(found?.atRest?.carried).toEqual({ total: 74, values: [30, 35, 9] });
    expect(found?.columns).toEqual(scanned.columns);
  }
  // What a measure means may change while its cells do not: nothing of before is told of it.
  const doubled = catalogOf("sum(people) * 2");
  expect(answerFromCells([query("1")], index, doubled)[0]?.atRest?.carried.total).toBe(148);
  expect(answerFromCells([query("1")], index, sum)[0]?.atRest?.carried.total).toBe(74);
});

it("asks the same only once for many queries of a batch", () => {
  const sum = catalogOf("sum(people)");
  const answers = runQueries([query("1"), query("2"), query("1")], sum) as Result[];
  expect(answers.map((a) => a.atRest?.carried.total)).toEqual([74, 74, 74]);
  expect(answers.map((a) => a.totals.carried)).toEqual([47, 27, 47]);
});
