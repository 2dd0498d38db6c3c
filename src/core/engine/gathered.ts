import type { Value } from "../base/value";
import { type Aggregate, aggregateKey } from "../plan/aggregates";
import type { PlacedSplit } from "../plan/plan";
import { type Accumulator, merged } from "./accumulators/accumulator";
import { accumulatorOf } from "./accumulators/accumulator-of";
import { Count } from "./accumulators/count";

/** One grouping of a pass: what it groups by, and the aggregates that it gathers. */
export interface Grouping {
  splits: PlacedSplit[];
  aggregates: Aggregate[];
}

/** What one pass over the rows gathered for one grouping. */
export interface Gathered {
  /** For each split, one key a group. */
  keys: Value[][];
  size: number;
  accumulators: Map<string, Accumulator>;
  /** Rows in each group. */
  counts: Accumulator;
  scanned: number;
}

/** What was gathered, as plain data that can go to another thread. */
export interface GatheredState {
  keys: Value[][];
  size: number;
  /** By the key of the aggregate; what only counts rows is not among them. */
  accumulators: [string, unknown][];
  counts: unknown;
  scanned: number;
}

export function stateOf({ keys, size, accumulators, counts, scanned }: Gathered): GatheredState {
  const own = [...accumulators].filter(([, a]) => a !== counts);
  return {
    keys,
    size,
    accumulators: own.map(([key, a]) => [key, a.state()]),
    counts: counts.state(),
    scanned,
  };
}

/** Numbers keys of one or two splits in the order in which they are first met. */
function numbering(splits: number): { keys: Value[][]; of: (keys: Value[][], group: number) => number } {
  const keys: Value[][] = Array.from({ length: splits }, () => []);
  const first = new Map<Value, number>();
  const pairs = new Map<Value, Map<Value, number>>();
  const added = (known: Map<Value, number>, last: Value, group: Value[]): number => {
    const at = keys[0].length;
    for (const [i, key] of group.entries()) keys[i].push(key);
    known.set(last, at);
    return at;
  };
  return {
    keys,
    of: (columns, group) => {
      if (splits === 0) return 0;
      const a = columns[0][group];
      if (splits === 1) return first.get(a) ?? added(first, a, [a]);
      const b = columns[1][group];
      let known = pairs.get(a);
      if (!known) {
        known = new Map();
        pairs.set(a, known);
      }
      return known.get(b) ?? added(known, b, [a, b]);
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
    accumulators.set(key, a.fn === "count" && !a.arg && !a.filter ? counts : accumulatorOf(a));
  }
  return { keys: splits.map(() => []), size: 0, accumulators, counts, scanned: 0 };
}

/**
 * What was gathered of some rows after the other, put together as if in one pass; into `base`, which is used
 * up, where there is one.
 */
export function combined(grouping: Grouping, parts: GatheredState[], base = nothing(grouping)): Gathered {
  const { accumulators, counts } = base;
  const numbers = numbering(grouping.splits.length);
  for (let g = 0; g < base.size; g++) numbers.of(base.keys, g);
  let { scanned } = base;
  const size = () => (grouping.splits.length === 0 ? 1 : numbers.keys[0].length);
  for (const part of parts) {
    const into = new Int32Array(part.size);
    for (let g = 0; g < part.size; g++) into[g] = numbers.of(part.keys, g);
    counts.absorb(part.counts, into, size());
    for (const [key, state] of part.accumulators) accumulators.get(key)?.absorb(state, into, size());
    scanned += part.scanned;
  }
  return { keys: numbers.keys, size: size(), accumulators, counts, scanned };
}

/**
 * Takes over what was gathered before of the same rows and splits, for aggregates that `gathered` lacks. Its
 * groups may have other numbers: they depend on who met them first.
 */
export function takeOver(gathered: Gathered, before: Gathered): void {
  const missing = [...before.accumulators].filter(([key]) => !gathered.accumulators.has(key));
  if (missing.length === 0) return;
  const numbers = numbering(gathered.keys.length);
  for (let g = 0; g < gathered.size; g++) numbers.of(gathered.keys, g);
  const into = Int32Array.from({ length: before.size }, (_, g) => numbers.of(before.keys, g));
  for (const [key, accumulator] of missing)
    gathered.accumulators.set(key, merged(accumulator, into, gathered.size));
}
