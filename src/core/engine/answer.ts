import { own } from "../base/own";
import { compareValues, type Value, type ValueType } from "../base/value";
import { outward } from "../data/column";
import type { Scope } from "../formula/expr";
import { type Aggregate, aggregateKey } from "../plan/aggregates";
import type { Plan } from "../plan/plan";
import type { Result, ResultColumn, SplitTotals } from "../plan/query";
import { QueryError } from "../plan/query-error";
import { type Accumulator, merged } from "./accumulators/accumulator";
import { type Categories, placesAmong, textRanks } from "./category-places";
import type { Gathered } from "./gathered";
import { type AccumulatorSet, groupCompiler } from "./group-level";
import { compareKeys, NO_MATCH, outwardKey } from "./grouper";
import { categoriesOfSplits, coarseSplits, type SplitFacts } from "./split-facts";

function mergeAll(accumulators: AccumulatorSet, into: Int32Array, groups: number): Map<string, Accumulator> {
  return new Map([...accumulators].map(([key, a]) => [key, merged(a, into, groups)]));
}

/** Of what a pass gathered, perhaps for others too, what a plan asks for. */
function asked(part: Gathered, aggregates: Aggregate[]): Gathered {
  const keys = new Set(aggregates.map(aggregateKey));
  return { ...part, accumulators: new Map([...part.accumulators].filter(([key]) => keys.has(key))) };
}

/** Brings what several tables gathered under the keys of all of them. */
function united(parts: Gathered[], splits: number): Gathered {
  if (parts.length === 1) return parts[0];
  const keys: Value[][] = Array.from({ length: splits }, () => []);
  const known = new Map<string, number>();
  let size = 0;
  const places = parts.map((part) => {
    const into = new Int32Array(part.size);
    for (let g = 0; g < part.size; g++) {
      const tuple = part.keys.map((k) => k[g]);
      const name = JSON.stringify(tuple);
      let at = known.get(name);
      if (at === undefined) {
        at = size++;
        known.set(name, at);
        for (const [i, key] of tuple.entries()) keys[i].push(key);
      }
      into[g] = at;
    }
    return into;
  });
  const accumulators = new Map(parts.flatMap((part, i) => [...mergeAll(part.accumulators, places[i], size)]));
  return {
    keys,
    size,
    accumulators,
    counts: merged(parts[0].counts, places[0], size),
    scanned: parts.reduce((sum, p) => sum + p.scanned, 0),
  };
}

/** One split on its own: its distinct keys, and everything merged over the other split. */
interface Side {
  keys: Value[];
  /** For each group, the number of its key. */
  of: Int32Array;
  accumulators: AccumulatorSet;
  rows: (key: number) => number;
  values: Value[][];
  /** Key numbers in their order, without those past the first n. */
  order: number[];
  /** Keys that Other stands for; empty when there is no Other. */
  others: number[];
  /** For each key its place in the order; Other stands after the last; -1 is left out. */
  position: Int32Array;
}

function sideOf(
  plan: Plan,
  gathered: Gathered,
  whole: AccumulatorSet,
  at: number,
  categories: Categories,
): Side {
  const { keys: keyColumns, size } = gathered;
  const single = keyColumns.length === 1;
  const known = new Map<Value, number>();
  const keys: Value[] = single ? keyColumns[0] : [];
  const of = new Int32Array(size);
  for (let g = 0; g < size; g++) {
    if (single) {
      of[g] = g;
      continue;
    }
    const key = keyColumns[at][g];
    let number = known.get(key);
    if (number === undefined) {
      number = keys.push(key) - 1;
      known.set(key, number);
    }
    of[g] = number;
  }
  const accumulators = single ? gathered.accumulators : mergeAll(gathered.accumulators, of, keys.length);
  const counts = single ? gathered.counts : merged(gathered.counts, of, keys.length);
  const compile = groupCompiler(accumulators, whole);
  const compute = plan.measures.map((m) => compile(m.expr));
  const values: Value[][] = compute.map(() => new Array(keys.length));
  // Group by group, so that what several measures use is computed once.
  for (let k = 0; k < keys.length; k++) for (const [i, value] of compute.entries()) values[i][k] = value(k);
  const { sort, keep } = at === 0 ? plan.query : (plan.query.series ?? {});
  const byColumn = plan.orders[at];
  const sortedBy = byColumn ? keys.map((_, k) => compile(byColumn)(k)) : null;
  let order = orderOf(keys, sortedBy ?? measureValues(plan, values, sort), sort, plan, at, categories);
  let others: number[] = [];
  const position = new Int32Array(keys.length).fill(-1);
  // An Other of a single group would only hide its name.
  if (keep && order.length > keep.first + (keep.others ? 1 : 0)) {
    if (keep.others) others = order.slice(keep.first);
    order = order.slice(0, keep.first);
  }
  for (const [i, k] of order.entries()) position[k] = i;
  for (const k of others) position[k] = order.length;
  return { keys, of, accumulators, rows: (k) => counts.result(k) as number, values, order, others, position };
}

/** The values of the measure that a split is sorted by, or null where it is not one. */
function measureValues(plan: Plan, values: Value[][], sort: Plan["query"]["sort"]): Value[] | null {
  const at = sort ? plan.measures.findIndex((m) => m.name === sort.by) : -1;
  return at < 0 ? null : values[at];
}

const knownPlaces = new WeakMap<Value[], Int32Array>();

/** The place of each key in the order of keys, found once for all queries that gathered the same. */
function placesInOrder(keys: Value[], categories: Categories): Int32Array {
  const found = knownPlaces.get(keys);
  if (found?.length === keys.length) return found;
  const places = new Int32Array(keys.length);
  for (const [place, k] of numbersInOrder(keys, categories).entries()) places[k] = place;
  knownPlaces.set(keys, places);
  return places;
}

/**
 * The numbers of keys in the order of keys. Texts that stand in their column need not be compared anew: they
 * are ranked.
 */
function numbersInOrder(keys: Value[], categories: Categories): number[] {
  const ranks = textRanks(categories);
  const byRank: number[] = new Array(ranks?.size ?? 0).fill(-1);
  const last: number[] = [];
  const inOrder = (numbers: number[]) => numbers.sort((a, b) => compareKeys(keys[a], keys[b]));
  for (const [k, key] of keys.entries()) {
    const rank = ranks?.get(key);
    if (rank !== undefined) byRank[rank] = k;
    else if (key === null || key === NO_MATCH) last.push(k);
    else return inOrder(keys.map((_, number) => number));
  }
  return [...byRank.filter((k) => k >= 0), ...inOrder(last)];
}

/**
 * The order of keys: by values of theirs, or by the split's own order; ties always by the split's own order,
 * and nulls last in both directions.
 */
function orderOf(
  keys: Value[],
  values: Value[] | null,
  sort: Plan["query"]["sort"],
  plan: Plan,
  at: number,
  categories: Categories,
): number[] {
  const places = placesInOrder(keys, categories);
  const numbers: number[] = new Array(keys.length);
  for (let k = 0; k < keys.length; k++) numbers[places[k]] = k;
  if (!sort) return numbers;
  const byKey = (a: number, b: number) => places[a] - places[b];
  const sign = sort.order === "asc" ? 1 : -1;
  if (!values) {
    const byHand = byHandOrder(keys, sort, plan.keyTypes[at]);
    const backwards = (a: number, b: number) =>
      keys[a] === NO_MATCH || keys[b] === NO_MATCH ? byKey(a, b) : sign * (byHand(a, b) || byKey(a, b));
    if (sort.by === "split" || sort.by === plan.query.splits[at]?.column) return numbers.sort(backwards);
    throw new QueryError(
      "bad_sort",
      `“${String(sort.by)}” is neither a measure of this query nor its split.`,
    );
  }
  // Sorting keeps the order of equals, which is the split's own.
  const known = numbers.filter((k) => values[k] !== null);
  const none = numbers.filter((k) => values[k] === null);
  const areNumbers = known.every((k) => typeof values[k] === "number");
  const compare = areNumbers ? (a: Value, b: Value) => (a as number) - (b as number) : compareValues;
  known.sort((a, b) => sign * compare(values[a], values[b]));
  return [...known, ...none];
}

/** The order of key numbers by the values that go first; 0 where both come after them. */
function byHandOrder(
  keys: Value[],
  { values = [] }: NonNullable<Plan["query"]["sort"]>,
  type: Plan["keyTypes"][number],
): (a: number, b: number) => number {
  if (values.length === 0) return () => 0;
  const wanted = new Map(values.map((value, i) => [value, i]));
  const place = keys.map((key) => wanted.get(outwardKey(key, type)) ?? values.length);
  return (a, b) => place[a] - place[b];
}

/** Values as they leave the engine: most are as they are. */
const outwardAll = (values: Value[], type: ValueType): Value[] =>
  type === "date" || type === "timestamp" ? values.map((v) => outward(v, type)) : values;

/** Each measure for each place of a side's order, Other at the end. */
function sideValues(plan: Plan, side: Side, whole: AccumulatorSet): Value[][] {
  const into = new Int32Array(side.keys.length);
  for (const k of side.others) into[k] = 1;
  const compile = side.others.length ? groupCompiler(mergeAll(side.accumulators, into, 2), whole) : null;
  return plan.measures.map((m, i) =>
    outwardAll(
      [...side.order.map((k) => side.values[i][k]), ...(compile ? [compile(m.expr)(1)] : [])],
      m.expr.type,
    ),
  );
}

/**
 * What each row without a match stands under, and how many there are; null when there is none or it
 * is left out.
 */
function noMatchOf(side: Side): { at: number; rows: number } | null {
  const key = side.keys.indexOf(NO_MATCH);
  return key < 0 || side.position[key] < 0 || side.others.includes(key)
    ? null
    : { at: side.position[key], rows: side.rows(key) };
}

function outwardKeys(plan: Plan, side: Side, at: number): Value[] {
  const keys = side.order.map((k) => outwardKey(side.keys[k], plan.keyTypes[at]));
  if (side.others.length) keys.push(null);
  return keys;
}

function crossedResult(
  plan: Plan,
  gathered: Gathered,
  whole: AccumulatorSet,
  categories: Categories[],
): Pick<Result, "columns" | "rows"> & { crossed: NonNullable<Result["crossed"]> } {
  const sides = [0, 1].map((at) => sideOf(plan, gathered, whole, at, categories[at]));
  const width = sides[1].order.length + (sides[1].others.length ? 1 : 0);
  const cells = new Map<number, number>();
  const cellOf = new Int32Array(gathered.size);
  for (let g = 0; g < gathered.size; g++) {
    const [a, b] = sides.map((s) => s.position[s.of[g]]);
    cellOf[g] = a < 0 || b < 0 ? -1 : a * width + b;
    if (cellOf[g] >= 0) cells.set(cellOf[g], 0);
  }
  const sorted = [...cells.keys()].sort((a, b) => a - b);
  for (const [i, cell] of sorted.entries()) cells.set(cell, i);
  // What is left out goes into one more group, which is not read.
  const into = cellOf.map((cell) => (cell < 0 ? sorted.length : (cells.get(cell) as number)));
  const cellsOf = mergeAll(gathered.accumulators, into, sorted.length + 1);
  const at = sorted.map((cell): [number, number] => [Math.floor(cell / width), cell % width]);
  const keys = sides.map((side, i) => outwardKeys(plan, side, i));
  const compile = groupCompiler(cellsOf, whole);
  const columns: ResultColumn[] = [
    ...plan.query.splits.map((split, i) => ({
      name: split.column,
      type: plan.keyTypes[i],
      values: at.map((places) => keys[i][places[i]]),
    })),
    ...plan.measures.map((m) => {
      const value = compile(m.expr);
      return {
        name: m.name,
        type: m.expr.type,
        values: sorted.map((_, i) => outward(value(i), m.expr.type)),
      };
    }),
  ];
  const splits = sides.map((side, i): SplitTotals => {
    const values = sideValues(plan, side, whole);
    return {
      column: plan.query.splits[i].column,
      type: plan.keyTypes[i],
      keys: keys[i],
      others: side.others.length ? { at: side.order.length, groups: side.others.length } : null,
      noMatch: noMatchOf(side),
      totals: Object.fromEntries(plan.measures.map((m, k) => [m.name, values[k]])),
    };
  });
  return { columns, rows: sorted.length, crossed: { splits: splits as [SplitTotals, SplitTotals], at } };
}

/** The most values of one answer: more cannot be drawn, and would fill the memory of whoever asked. */
const MOST_VALUES = 2_000_000;

function checkSize(rows: number, columns: number): void {
  if (rows * columns > MOST_VALUES)
    throw new QueryError(
      "too_large",
      `This answer would have ${(rows * columns).toLocaleString("en")} values; at most ${MOST_VALUES.toLocaleString("en")} are given. Ask for fewer measures at once, or filter the rows.`,
    );
}

/**
 * Makes a plan's answer out of what its parts gathered, in their order: the group-level stage, order,
 * first-n, Other and totals. `facts` say what else there is to be said of its splits.
 */
export function answerOf(
  plan: Plan,
  parts: Gathered[],
  { scope, facts }: { scope: Scope; facts: SplitFacts },
): Omit<Result, "ms"> {
  const { query, measures, unfiltered, leftWhole, unanswered } = plan;
  checkSize(Math.max(0, ...parts.map((p) => p.size)), measures.length + query.splits.length);
  const needed = parts.map((part, i) => asked(part, plan.tables[i].aggregates));
  const gathered = parts.length ? united(needed, query.splits.length) : null;
  const whole: AccumulatorSet = gathered
    ? mergeAll(gathered.accumulators, new Int32Array(gathered.size), 1)
    : new Map();
  const compile = groupCompiler(whole, whole);
  const totals = Object.fromEntries(measures.map((m) => [m.name, outward(compile(m.expr)(0), m.expr.type)]));
  const categories = categoriesOfSplits(plan, scope, facts);
  const places = (keysOf: (split: number) => Value[]) =>
    categories.map((all, split) => placesAmong(all, keysOf(split)));
  const shared = {
    totals,
    unfiltered,
    leftWhole,
    atRest: null,
    unanswered,
    coarse: coarseSplits(plan, facts),
    scanned: gathered?.scanned ?? 0,
    others: null,
    noMatch: null,
    crossed: null,
  };
  if (!gathered || query.splits.length === 0)
    return {
      ...shared,
      columns: measures.map((m) => ({
        name: m.name,
        type: m.expr.type,
        values: [own(totals, m.name) ?? null],
      })),
      rows: 1,
      places: [],
    };
  if (query.splits.length === 2) {
    const result = crossedResult(plan, gathered, whole, categories);
    return { ...shared, ...result, places: places((split) => result.crossed.splits[split].keys) };
  }
  const side = sideOf(plan, gathered, whole, 0, categories[0]);
  const values = sideValues(plan, side, whole);
  const keys = outwardKeys(plan, side, 0);
  const noMatch = noMatchOf(side);
  return {
    ...shared,
    columns: [
      { name: query.splits[0].column, type: plan.keyTypes[0], values: keys },
      ...measures.map((m, i) => ({ name: m.name, type: m.expr.type, values: values[i] })),
    ],
    rows: keys.length,
    others: side.others.length ? { row: side.order.length, groups: side.others.length } : null,
    noMatch: noMatch && { row: noMatch.at, rows: noMatch.rows },
    places: places(() => keys),
  };
}
