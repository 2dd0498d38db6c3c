import type { ColumnType } from "../../data/column";
import type { Aggregate } from "../../plan/aggregates";
import type { PlacedFilter, PlacedSplit } from "../../plan/plan";
import { type Accumulator, merged, type Tally } from "../accumulators/accumulator";
import { type Gathering, gatheringOf } from "../accumulators/accumulator-of";
import type { Gathered } from "../gathered";
import type { SourceColumn } from "../source-column";
import { keyColumn } from "./keys";
import { linesOf, numbered } from "./numbered";
import type { OrderedRows } from "./row-order";

/** An aggregate that is only added up: `upTo[t][i]` is the sum of its tally t over the first i cells. */
export interface Summed {
  gathering: Gathering;
  /** One of the aggregate, of one group, without rows: it knows in which unit its values are. */
  like: Accumulator;
  upTo: Tally[];
}

/** The rows behind the bins of a range key, in the order of its values. */
export interface Edges {
  /** For each value the place of its first row, and after the last the number of rows. */
  starts: Int32Array;
  rows: OrderedRows;
}

/** The key that the cells of a line differ in: stretches of its values, so many that a cell stays few rows. */
export interface RangeKey {
  key: PlacedSplit;
  /** Its distinct values in their order. */
  values: SourceColumn;
  /** The first value of each bin, and after the last the number of values. */
  bins: Int32Array;
  /** From where it is told what part of a bin holds; null where bins are single values, or no rows are here. */
  edges: Edges | null;
}

/**
 * What the rows of a table that pass some filters give, told apart by keys that splits and further filters
 * ask for. Each line is a tuple of keys; its cells differ in the range key alone, and stand in its order,
 * so that a range of it is two places in sums over all cells (prefix sums, as of a data cube:
 * C.-T. Ho, R. Agrawal, N. Megiddo, R. Srikant, Range Queries in OLAP Data Cubes, SIGMOD 1997).
 */
export interface Cells {
  table: string;
  /** Every row of the cells passed these. */
  filters: PlacedFilter[];
  /** What lines are told apart by, and each key on each line. */
  keys: PlacedSplit[];
  lines: SourceColumn[];
  /** Null where each line is a cell. */
  range: RangeKey | null;
  /** Line l has the cells from starts[l] up to starts[l + 1]. */
  starts: Int32Array;
  /** For each cell its bin of the range; empty where there is none. */
  codes: Int32Array;
  /** Aggregates by their key (see `aggregateKey`). */
  summed: Map<string, Summed>;
  /** Aggregates that hold more than sums, a group a cell. */
  others: Map<string, { gathering: Gathering; accumulator: Accumulator }>;
  /** The rows of the first i cells. */
  rowsUpTo: Int32Array;
}

/** For each number below `most` where its entries begin in an order by number, and after the last the end. */
function startsOf(numbers: Int32Array, most: number): Int32Array {
  const starts = new Int32Array(most + 1);
  for (let i = 0; i < numbers.length; i++) starts[numbers[i] + 1]++;
  for (let i = 0; i < most; i++) starts[i + 1] += starts[i];
  return starts;
}

/** The places of groups in an order by line, and within a line by code (two stable counting sorts). */
function placesOf(lines: Int32Array, lineStarts: Int32Array, codes: Int32Array, values: number): Int32Array {
  const next = startsOf(codes, values);
  const byCode = new Int32Array(lines.length);
  for (let g = 0; g < lines.length; g++) byCode[next[codes[g]]++] = g;
  const nextInLine = lineStarts.slice();
  const places = new Int32Array(lines.length);
  for (const g of byCode) places[g] = nextInLine[lines[g]]++;
  return places;
}

function upTo(tally: Tally, size: number): Tally {
  const sums = tally instanceof Int32Array ? new Int32Array(size + 1) : new Float64Array(size + 1);
  for (let i = 0; i < size; i++) sums[i + 1] = sums[i] + (tally[i] ?? 0);
  return sums;
}

/**
 * Puts what a scan gathered into lines and cells: by `keys`, and after them, where there is a range key, by its
 * bins. `types` are those of the keys, `aggregates` are by their names.
 */
export function cellsOf(
  { table, filters, keys, range }: Pick<Cells, "table" | "filters" | "keys" | "range">,
  types: ColumnType[],
  aggregates: ReadonlyMap<string, Aggregate>,
  { keys: found, size, accumulators, counts }: Gathered,
): Cells {
  const columns = found.slice(0, keys.length).map((column) => numbered(column, size));
  const lines = linesOf(columns, size);
  const starts = startsOf(lines.of, lines.first.length);
  const bins = range ? Int32Array.from(found[keys.length] as number[]) : new Int32Array(size);
  const places = placesOf(lines.of, starts, bins, range ? range.bins.length - 1 : 1);
  const codes = new Int32Array(range ? size : 0);
  if (range) for (let g = 0; g < size; g++) codes[places[g]] = bins[g];
  const summed: Cells["summed"] = new Map();
  const others: Cells["others"] = new Map();
  for (const [key, accumulator] of accumulators) {
    const sorted = merged(accumulator, places, size);
    const tallies = sorted.tallies?.();
    const like = tallies && sorted.ofTallies?.(tallies.map(() => new Int32Array(1)));
    const gathering = gatheringOf(aggregates.get(key) as Aggregate);
    if (tallies && like) summed.set(key, { gathering, like, upTo: tallies.map((t) => upTo(t, size)) });
    else others.set(key, { gathering, accumulator: sorted });
  }
  const rows = merged(counts, places, size).state() as Int32Array;
  return {
    table,
    filters,
    keys,
    lines: columns.map(({ values, of }, i) =>
      keyColumn(
        Array.from(lines.first, (g) => values[of[g]]),
        types[i],
      ),
    ),
    range,
    starts,
    codes,
    summed,
    others,
    rowsUpTo: upTo(rows, size) as Int32Array,
  };
}
