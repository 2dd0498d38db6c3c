import { describe, expect, it } from "vitest";
import { madeTable, scopeColumns } from "../../testing/made-table";
import { bucketStart, DATE_BUCKETS, isoDate, parseIsoDate, parseIsoTimestamp } from "../base/calendar";
import { type Filter, querySchema, type Result } from "../plan/query";
import { QueryError } from "../plan/query-error";
import { bucketAfter, relativeDays } from "./relative";
import { runQueries } from "./run";

const DAYS = ["2026-01-31", "2026-02-01", "2026-02-28", "2026-03-01", "2026-03-15", null];
const table = madeTable("t", {
  id: ["number", [1, 2, 3, 4, 5, 6]],
  name: ["text", ["Ferrow Isle", "North Quay", "", "Ünder Quay", null, "quay"]],
  on: ["date", DAYS.map((d) => d && parseIsoDate(d))],
  at: ["timestamp", DAYS.map((d) => d && parseIsoTimestamp(`${d}T23:30:00`))],
  ok: ["boolean", [true, false, null, true, false, null]],
});
const catalog = {
  tables: [table],
  inputs: {},
  scope: { tables: [{ name: "t", columns: scopeColumns(table) }], measures: [], inputs: [] },
  today: "2026-03-15",
};
/** The ids of the rows that a filter keeps. */
function kept(filter: Filter): unknown[] {
  const found = runQueries(
    [
      querySchema.parse({
        table: "t",
        measures: [{ formula: "count(*)", as: "n" }],
        splits: [{ column: "id" }],
        filters: [filter],
      }),
    ],
    catalog,
  )[0];
  if (found instanceof QueryError) throw found;
  return (found as Result).columns[0].values;
}

describe("filters", () => {
  it("find a text without regard to case", () => {
    expect(kept({ column: "name", contains: "QUAY" })).toEqual([2, 4, 6]);
    expect(kept({ column: "name", contains: "ü" })).toEqual([4]);
    expect(() => kept({ column: "id", contains: "1" })).toThrow("id is a number, so it contains no text");
  });

  it("tell null from empty text and from false", () => {
    expect(kept({ column: "name", isNull: true })).toEqual([5]);
    expect(kept({ column: "ok", isNull: true })).toEqual([3, 6]);
    expect(kept({ column: "on", isNull: false })).toEqual([1, 2, 3, 4, 5]);
    expect(kept({ column: "ok", in: [false, null] })).toEqual([2, 3, 5, 6]);
  });

  it("leave out what is listed, and nothing else", () => {
    expect(kept({ column: "name", not: ["North Quay", "quay"] })).toEqual([1, 3, 4, 5]);
    expect(kept({ column: "name", not: ["", null] })).toEqual([1, 2, 4, 6]);
    expect(kept({ column: "ok", not: [true] })).toEqual([2, 3, 5, 6]);
    expect(kept({ column: "id", not: [] })).toEqual([1, 2, 3, 4, 5, 6]);
    expect(kept({ column: "on", by: "month", not: ["2026-02-01"] })).toEqual([1, 4, 5, 6]);
    // A column of the table's own has nothing without a match.
    expect(kept({ column: "ok", in: [null], noMatch: true })).toEqual([3, 6]);
    expect(() => kept({ column: "ok", not: ["yes"] })).toThrow('ok needs true or false, not "yes"');
  });

  it("hold a range with both ends, a date being the whole day of a timestamp", () => {
    expect(kept({ column: "on", from: "2026-02-01", to: "2026-03-01" })).toEqual([2, 3, 4]);
    expect(kept({ column: "at", from: "2026-02-01", to: "2026-03-01" })).toEqual([2, 3, 4]);
    expect(kept({ column: "at", to: "2026-03-01T12:00:00" })).toEqual([1, 2, 3]);
    expect(kept({ column: "name", from: "Ferrow Isle", to: "O" })).toEqual([1, 2]);
  });

  it("count whole months, weeks and days from today or from the newest date", () => {
    expect(kept({ column: "on", relative: { unit: "month", from: -1, to: -1, anchor: "today" } })).toEqual([
      2, 3,
    ]);
    expect(kept({ column: "at", relative: { unit: "month", from: -1, to: 0, anchor: "newest" } })).toEqual([
      2, 3, 4, 5,
    ]);
    expect(kept({ column: "on", relative: { unit: "day", from: -14, to: -14, anchor: "today" } })).toEqual([
      4,
    ]);
    expect(kept({ column: "on", relative: { unit: "quarter", from: 0, to: 0, anchor: "today" } })).toEqual([
      1, 2, 3, 4, 5,
    ]);
    expect(() =>
      kept({ column: "id", relative: { unit: "month", from: 0, to: 0, anchor: "today" } }),
    ).toThrow("id is no date");
  });
});

it("buckets follow each other without a gap", () => {
  for (const unit of DATE_BUCKETS) {
    for (
      let day = parseIsoDate("2023-11-20") as number;
      day < (parseIsoDate("2025-03-10") as number);
      day += 13
    ) {
      const { first, last } = relativeDays(day, { unit, from: 0, to: 0 });
      expect(bucketStart(day, unit)).toBe(first);
      expect(bucketStart(last, unit)).toBe(first);
      expect(bucketAfter(day, unit, 1)).toBe(last + 1);
      expect(bucketStart(first - 1, unit)).toBe(bucketAfter(day, unit, -1));
    }
  }
  expect(isoDate(bucketAfter(parseIsoDate("2026-01-31") as number, "quarter", -5))).toBe("2024-10-01");
});
