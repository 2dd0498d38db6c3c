import type { Value } from "../base/value";
import { type Aggregate, aggregateKey } from "../plan/aggregates";
import type { PlacedSplit } from "../plan/plan";
import { type Accumulator, merged } from "./accumulators/accumulator";
import { accumulatorOf } from "./accumulators/accumulator-of";
import { Count } from "./accumulators/count";
import { compareKeys } from "./grouper";
import type { Loops } from "./loops/loops";

/** One grouping of a pass: what it groups by, and the aggregates that it gathers. */
export interface Grouping {
  splits: PlacedSplit[];
  aggregates: Aggregate[];
  /** How many groups it may have at most; else as many as an answer can. */
  most?: number;
}

/** Whether an aggregate only counts rows, so that it is the count of those in each group. */
export const isRowCount = (a: Aggregate): boolean => a.fn === "count" && !a.arg && !a.filter;

/** What one pass over the rows gathered for one grouping. Aggregates that only count rows are `counts` itself. */
export interface Gathered {
  /** For each split, one key a group. */
  keys: Value[][];
  size: number;
  accumulators: Map<string, Accumulator>;
  /** Rows in each group. */
  counts: Accumulator;
  scanned: number;
}

/** What a chunk gave for aggregates that depend on the order of rows, by the key of each. */
export interface Ordered {
  chunk: number;
  states: [string, unknown][];
}

/** What one thread gathered of its chunks; what depends on the order of rows apart for each. */
export interface GatheredPart {
  gathered: Gathered;
  ordered: Ordered[];
}

/** What was gathered, as plain data that can go to another thread. */
export interface GatheredState {
  keys: Value[][];
  size: number;
  /** By the key of the aggregate; what only counts rows is not among them. */
  accumulators: [string, unknown][];
  counts: unknown;
  scanned: number;
  ordered: Ordered[];
}

export function stateOf({ gathered, ordered }: GatheredPart): GatheredState {
  const { keys, size, accumulators, counts, scanned } = gathered;
  const own = [...accumulators].filter(([, a]) => a !== counts);
  return {
    keys,
    size,
    accumulators: own.map(([key, a]) => [key, a.state()]),
    counts: counts.state(),
    scanned,
    ordered,
  };
}

/** Numbers tuples of keys in the order in which they are first met. */
function numbering(splits: number): { keys: Value[][]; of: (keys: Value[][], group: number) => number } {
  interface Known {
    numbers: Map<Value, number>;
    deeper: Map<Value, Known>;
  }
  const fresh = (): Known => ({ numbers: new Map(), deeper: new Map() });
  const keys: Value[][] = Array.from({ length: splits }, () => []);
  const root = fresh();
  return {
    keys,
    of: (columns, group) => {
      if (splits === 0) return 0;
      let known = root;
      for (let i = 0; i < splits - 1; i++) {
        const key = columns[i][group];
        let deeper = known.deeper.get(key);
        if (!deeper) {
          deeper = fresh();
          known.deeper.set(key, deeper);
        }
        known = deeper;
      }
      const last = columns[splits - 1][group];
      let at = known.numbers.get(last);
      if (at === undefined) {
        at = keys[0].length;
        for (const [i, column] of columns.entries()) keys[i].push(column[group]);
        known.numbers.set(last, at);
      }
      return at;
    },
  };
}

/** What holds nothing yet of a grouping. */
function nothing({ splits, aggregates }: Grouping): Gathered {
  const counts = new Count();
  const accumulators = new Map<string, Accumulator>();
  for (const a of aggregates) {
    const key = aggregateKey(a);
    if (accumulators.has(key)) continue;
    accumulators.set(key, isRowCount(a) ? counts : accumulatorOf(a));
  }
  return { keys: splits.map(() => []), size: 0, accumulators, counts, scanned: 0 };
}

/** The place of each group where they stand in the order of their keys, whoever met which first. */
function placesByKey(keys: Value[][], size: number): Int32Array {
  const order = Array.from({ length: size }, (_, g) => g).sort((a, b) =>
    keys.reduce((found, column) => found || compareKeys(column[a], column[b]), 0),
  );
  const places = new Int32Array(size);
  for (const [place, g] of order.entries()) places[g] = place;
  return places;
}

/** The same groups in other places. */
function moved({ keys, size, accumulators, counts, scanned }: Gathered, places: Int32Array): Gathered {
  const inOrder = keys.map((column) => {
    const out: Value[] = new Array(size);
    for (let g = 0; g < size; g++) out[places[g]] = column[g];
    return out;
  });
  const rows = merged(counts, places, size);
  return {
    keys: inOrder,
    size,
    accumulators: new Map(
      [...accumulators].map(([key, a]) => [key, a === counts ? rows : merged(a, places, size)]),
    ),
    counts: rows,
    scanned,
  };
}

/**
 * Puts together what several threads gathered of one table, as if in one pass: into the caller's own part,
 * which is used up, where there is one, by the loops of its scan.
 */
export function combined(
  grouping: Grouping,
  others: GatheredState[],
  own?: GatheredPart,
  loops?: Loops,
): Gathered {
  const { splits } = grouping;
  const base = own?.gathered ?? nothing(grouping);
  const numbers = numbering(splits.length);
  for (let g = 0; g < base.size; g++) numbers.of(base.keys, g);
  const size = () => (splits.length === 0 ? 1 : numbers.keys[0].length);
  const ownPlaces = Int32Array.from({ length: base.size }, (_, g) => g);
  const ordered = (own?.ordered ?? []).map((of) => ({ ...of, into: ownPlaces }));
  let { scanned } = base;
  for (const part of others) {
    const into = new Int32Array(part.size);
    for (let g = 0; g < part.size; g++) into[g] = numbers.of(part.keys, g);
    base.counts.absorb(part.counts, into, size());
    for (const [key, state] of part.accumulators)
      base.accumulators.get(key)?.absorb(state, into, size(), loops);
    for (const of of part.ordered) ordered.push({ ...of, into });
    scanned += part.scanned;
  }
  if (loops) for (const accumulator of base.accumulators.values()) accumulator.settle?.(loops);
  const all = { ...base, keys: numbers.keys, size: size(), scanned };
  if (ordered.length === 0) return all;
  // Groups are added up in their order too, by totals and Other: it must not show who met which first.
  const places = placesByKey(all.keys, all.size);
  const inOrder = moved(all, places);
  for (const { states, into } of ordered.sort((a, b) => a.chunk - b.chunk)) {
    const to = into.map((g) => places[g]);
    for (const [key, state] of states) {
      const accumulator = inOrder.accumulators.get(key) ?? freshOf(grouping, key);
      accumulator.absorb(state, to, all.size);
      inOrder.accumulators.set(key, accumulator);
    }
  }
  return inOrder;
}

function freshOf({ aggregates }: Grouping, key: string): Accumulator {
  return accumulatorOf(aggregates.find((a) => aggregateKey(a) === key) as Aggregate);
}

/**
 * What was gathered with what was gathered before of the same rows and splits, for aggregates that it lacks.
 * Its groups may have other numbers, where several threads met them; then all stand in the order of keys.
 */
export function withBefore(gathered: Gathered, before: Gathered): Gathered {
  const missing = [...before.accumulators].filter(([key]) => !gathered.accumulators.has(key));
  if (missing.length === 0) return gathered;
  const numbers = numbering(gathered.keys.length);
  for (let g = 0; g < gathered.size; g++) numbers.of(gathered.keys, g);
  const into = Int32Array.from({ length: before.size }, (_, g) => numbers.of(before.keys, g));
  const accumulators = new Map(gathered.accumulators);
  for (const [key, accumulator] of missing) accumulators.set(key, merged(accumulator, into, gathered.size));
  const all = { ...gathered, accumulators };
  return into.every((to, g) => to === g) ? all : moved(all, placesByKey(all.keys, all.size));
}
