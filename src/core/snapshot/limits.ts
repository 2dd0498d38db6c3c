import type { Value } from "../base/value";
import { cellValue, outward } from "../data/column";
import { attempt } from "../engine/attempt";
import { answerFromCells } from "../engine/cells/cell-answer";
import { indexOf, type PlainIndex } from "../engine/cells/plain-index";
import type { Touched } from "../engine/cells/plan-cells";
import type { Scope } from "../formula/expr";
import { planQuery } from "../plan/plan-query";
import type { Filter, Query } from "../plan/query";
import { QueryError } from "../plan/query-error";

/** What is not answered anew: something that stays as it begins (`by` null), or what does not follow a filter. */
export interface Limit {
  of: string;
  by: string[] | null;
}

/** A value of a range key inside a bin, by which it shows whether stretches of it are told. */
function insideOf({ cells }: PlainIndex, name: string): Value {
  for (const { range } of cells) {
    if (!range || `${range.key.place.table}.${range.key.place.column}`.toLowerCase() !== name.toLowerCase())
      continue;
    const { data } = range.values;
    const bin = range.bins.findIndex(
      (first, i) => i + 1 < range.bins.length && range.bins[i + 1] - first > 1,
    );
    if (bin >= 0) return outward(cellValue(data, range.bins[bin] + 1), data.type);
  }
  return null;
}

/** Filters by which an index is tried, and of what they are. */
interface Probe {
  column: string;
  /** The columns, where it is of two. */
  of?: string[];
  filters: Filter[];
}
/** So many columns are tried two by two. */
const MOST_TOGETHER = 8;

const listOf = ({ column, by }: Touched): Filter => ({ column, ...(by ? { by } : {}), in: [] });

/**
 * What an index cannot answer of some queries when they are filtered by columns, each tried on its own: the
 * index is asked, and what it does not tell is listed.
 */
export function limitsOf(
  asked: { of: string; query: Query }[],
  touched: Touched[],
  plain: PlainIndex,
  { scope, inputs }: { scope: Scope; inputs: Record<string, Value> },
): Limit[] {
  const index = indexOf(plain);
  const isTold = (query: Query) => answerFromCells([query], index, { scope, inputs })[0] !== null;
  const isAsked = (query: Query) =>
    !(attempt(() => planQuery(query, scope, inputs, index.today)) instanceof QueryError);
  const probes = touched.flatMap(({ column, by }): Probe[] => {
    const inside = by ? null : insideOf(plain, column);
    const list = listOf({ column, by });
    return [
      { column, filters: [list] },
      ...(inside === null ? [] : [{ column, filters: [{ column, from: inside }] }]),
    ];
  });
  // Where all at once would be too many sums, two filters may be more than what is told.
  const few = plain.isSettled ? [] : touched.slice(0, MOST_TOGETHER);
  const together = few.flatMap((a, i) =>
    few.slice(i + 1).map((b): Probe => {
      const columns = [a.column, b.column].toSorted();
      return { column: columns.join(" together with "), of: columns, filters: [listOf(a), listOf(b)] };
    }),
  );
  const limits = new Map<string, Set<string> | null>();
  for (const { of, query } of asked) {
    const bare = { ...query, filters: [...query.filters] };
    if (!isTold(bare)) {
      limits.set(of, null);
      continue;
    }
    for (const { column, of: columns, filters } of [...probes, ...together]) {
      // What does not follow a column alone does not follow it with another.
      if (columns?.some((c) => limits.get(of)?.has(c))) continue;
      const filtered = { ...query, filters: [...query.filters, ...filters] };
      if (!isAsked(filtered) || isTold(filtered)) continue;
      const known = limits.get(of);
      if (known !== null) limits.set(of, (known ?? new Set<string>()).add(column));
    }
  }
  return [...limits].map(([of, by]) => ({ of, by: by && [...by] }));
}
