import { sameName } from "@/core/base/names";
import { compareValues, type Value } from "@/core/base/value";
import { cellsOf, cellValue, outward } from "@/core/data/column";
import { toBytes } from "@/core/data/plain-bytes";
import { buildCells } from "@/core/engine/cells/build-cells";
import { type PlainIndex, plainIndex } from "@/core/engine/cells/plain-index";
import type { Touched } from "@/core/engine/cells/plan-cells";
import { countCells, withoutRows } from "@/core/engine/cells/without-rows";
import type { Catalog } from "@/core/engine/run";
import type { ColumnPlace } from "@/core/formula/meeting";
import type { PlacedSplit } from "@/core/plan/plan";
import { filterKey } from "@/core/rows/key-labels";
import { limitsOf } from "@/core/snapshot/limits";
import type { ComputeRequest, TravellingIndex } from "./protocol";

const nameOf = ({ table, column }: ColumnPlace) => `${table}.${column}`;

/** What tells the sums of an index apart, with how many values each has at most. */
function keysIn({ cells }: PlainIndex): { name: string; values: number }[] {
  const found = new Map<string, number>();
  const add = ({ place, by }: PlacedSplit, values: number) => {
    const name = by ? `${nameOf(place)} by ${by}` : nameOf(place);
    found.set(name, Math.max(found.get(name) ?? 0, values));
  };
  for (const { keys, lines, range } of cells) {
    for (const [i, key] of keys.entries()) add(key, new Set(cellsOf(lines[i].data)).size);
    if (range) add(range.key, cellsOf(range.values.data).length);
  }
  return [...found].map(([name, values]) => ({ name, values }));
}

/** A filter by the last value of the first of some columns, as a page would write it. */
function exampleIn({ cells }: PlainIndex, touched: Touched[]): Record<string, Value[]> {
  for (const { column, by } of touched)
    for (const { keys, lines } of cells) {
      const at = keys.findIndex((k) => sameName(nameOf(k.place), column) && k.by === by);
      if (at < 0) continue;
      const { data } = lines[at];
      const rows = cellsOf(data).length;
      const all = Array.from({ length: rows }, (_, row) => outward(cellValue(data, row), data.type));
      const values = all.filter((v) => v !== null).sort(compareValues);
      const last = values.at(-1);
      if (last === undefined) continue;
      const bare = column.slice(column.indexOf(".") + 1);
      return { [by ? `${bare} by ${by}` : bare]: [filterKey(last, by)] };
    }
  return {};
}

/** Gathers an index without rows for some queries, and tries what it tells of them. */
export function travellingIndex(
  { asked, touched, now, limits }: Extract<ComputeRequest, { type: "index" }>,
  catalog: Catalog,
): TravellingIndex {
  const queries = asked.map((one) => one.query);
  const index = withoutRows(plainIndex(buildCells({ queries, touched, now }, catalog, limits)));
  return {
    index: toBytes(index),
    count: countCells(index),
    keys: keysIn(index),
    example: exampleIn(index, touched),
    limits: limitsOf(asked, touched, index, catalog),
  };
}
