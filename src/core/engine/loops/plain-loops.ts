import { BLOCK, type Cells, type Lane, type Loops, type Near, type Operator, type TestName } from "./loops";

type Doubles = Float64Array;

/**
 * Each place is written, and counted only where it is kept: a branch that goes either way would cost more
 * than the writing.
 */
function pickRun(cells: Doubles, low: number, high: number, count: number, out: Int32Array): number {
  let kept = 0;
  for (let i = 0; i < count; i++) {
    const x = cells[i];
    out[kept] = i;
    kept += Number(x >= low) * Number(x <= high);
  }
  return kept;
}

function pickAmong(
  cells: Doubles,
  { low, high }: { low: number; high: number },
  from: Int32Array,
  length: number,
  out: Int32Array,
): number {
  let kept = 0;
  for (let i = 0; i < length; i++) {
    const at = from[i];
    const x = cells[at];
    out[kept] = at;
    kept += Number(x >= low) * Number(x <= high);
  }
  return kept;
}

function groupSomeCodes(
  codes: Int32Array,
  groupOfCode: Int32Array,
  at: Int32Array,
  length: number,
  groups: Int32Array,
): boolean {
  let all = 0;
  for (let i = 0; i < length; i++) {
    const group = groupOfCode[codes[at[i]] + 1];
    groups[i] = group;
    all |= group;
  }
  return all < 0;
}

function groupAllCodes(
  codes: Int32Array,
  groupOfCode: Int32Array,
  length: number,
  groups: Int32Array,
): boolean {
  let all = 0;
  for (let i = 0; i < length; i++) {
    const group = groupOfCode[codes[i] + 1];
    groups[i] = group;
    all |= group;
  }
  return all < 0;
}

function groupSomeNear(
  values: Doubles,
  { low, table }: Near<Int32Array>,
  at: Int32Array,
  length: number,
  groups: Int32Array,
): boolean {
  let all = 0;
  for (let i = 0; i < length; i++) {
    const distance = values[at[i]] - low;
    const group = distance >= 0 && distance < table.length ? table[distance] : -1;
    groups[i] = group;
    all |= group;
  }
  return all < 0;
}

const everyPlace = Int32Array.from({ length: BLOCK }, (_, i) => i);

type Test = (a: Doubles, b: Doubles, out: Uint8Array, length: number) => void;
/**
 * A comparison with null (NaN) is never true, which is just what SQL's filters ask; so no null has to be
 * looked for. One loop each, so that each is compiled for itself.
 */
const TESTS: Record<TestName, Test> = {
  "=": (a, b, out, length) => {
    for (let i = 0; i < length; i++) out[i] = Number(a[i] === b[i]);
  },
  "<>": (a, b, out, length) => {
    for (let i = 0; i < length; i++) out[i] = Number(a[i] < b[i]) + Number(a[i] > b[i]);
  },
  "<": (a, b, out, length) => {
    for (let i = 0; i < length; i++) out[i] = Number(a[i] < b[i]);
  },
  "<=": (a, b, out, length) => {
    for (let i = 0; i < length; i++) out[i] = Number(a[i] <= b[i]);
  },
  ">": (a, b, out, length) => {
    for (let i = 0; i < length; i++) out[i] = Number(a[i] > b[i]);
  },
  ">=": (a, b, out, length) => {
    for (let i = 0; i < length; i++) out[i] = Number(a[i] >= b[i]);
  },
};
/** The same beside one number. */
const TESTS_BESIDE: Record<TestName, (a: Doubles, c: number, out: Uint8Array, length: number) => void> = {
  "=": (a, c, out, length) => {
    for (let i = 0; i < length; i++) out[i] = Number(a[i] === c);
  },
  "<>": (a, c, out, length) => {
    for (let i = 0; i < length; i++) out[i] = Number(a[i] < c) + Number(a[i] > c);
  },
  "<": (a, c, out, length) => {
    for (let i = 0; i < length; i++) out[i] = Number(a[i] < c);
  },
  "<=": (a, c, out, length) => {
    for (let i = 0; i < length; i++) out[i] = Number(a[i] <= c);
  },
  ">": (a, c, out, length) => {
    for (let i = 0; i < length; i++) out[i] = Number(a[i] > c);
  },
  ">=": (a, c, out, length) => {
    for (let i = 0; i < length; i++) out[i] = Number(a[i] >= c);
  },
};

const finite = (x: number) => (x - x === 0 ? x : Number.NaN);
const ARITHMETIC: Record<Operator, (a: Doubles, b: Doubles, out: Doubles, length: number) => void> = {
  "+": (a, b, out, length) => {
    for (let i = 0; i < length; i++) out[i] = finite(a[i] + b[i]);
  },
  "-": (a, b, out, length) => {
    for (let i = 0; i < length; i++) out[i] = finite(a[i] - b[i]);
  },
  "*": (a, b, out, length) => {
    for (let i = 0; i < length; i++) out[i] = finite(a[i] * b[i]);
  },
  "/": (a, b, out, length) => {
    for (let i = 0; i < length; i++) out[i] = finite(a[i] / b[i]);
  },
};

/** A lane is what it was given: the rows are read when they are taken into their groups. */
interface GivenLane extends Lane {
  given: "zeros" | "ones" | "filter" | "values" | "counts";
  cells: Cells;
  filter: Uint8Array | null;
}

/** Where the totals of a lane stand in those of a group. */
interface TotalsOf {
  totals: Doubles;
  width: number;
  at: number;
}

function addOnes({ totals, width, at }: TotalsOf, groups: Int32Array, length: number): void {
  for (let i = 0; i < length; i++) totals[groups[i] * width + at]++;
}

function addFilter(
  { totals, width, at }: TotalsOf,
  groups: Int32Array,
  length: number,
  filter: Uint8Array,
): void {
  for (let i = 0; i < length; i++) totals[groups[i] * width + at] += filter[i];
}

function addAll(
  { totals, width, at: lane }: TotalsOf,
  groups: Int32Array,
  length: number,
  cells: Doubles,
  at: Int32Array | null,
): void {
  if (at === null) for (let i = 0; i < length; i++) totals[groups[i] * width + lane] += cells[i];
  else for (let i = 0; i < length; i++) totals[groups[i] * width + lane] += cells[at[i]];
}

function addCells(
  { totals, width, at: lane }: TotalsOf,
  groups: Int32Array,
  length: number,
  { cells: { cells, none, at }, filter, given }: GivenLane,
): void {
  const isCounted = given === "counts";
  for (let i = 0; i < length; i++) {
    const x = cells[at === null ? i : at[i]];
    if (x === none || x !== x || (filter !== null && filter[i] === 0)) continue;
    totals[groups[i] * width + lane] += isCounted ? 1 : x;
  }
}

function keepLargest(
  { totals, width, at: lane }: TotalsOf,
  groups: Int32Array,
  length: number,
  cells: Doubles,
  at: Int32Array,
): void {
  for (let i = 0; i < length; i++) {
    const x = cells[at[i]];
    const to = groups[i] * width + lane;
    if (x > totals[to]) totals[to] = x;
  }
}

function keepSmallest(
  { totals, width, at: lane }: TotalsOf,
  groups: Int32Array,
  length: number,
  cells: Doubles,
  at: Int32Array,
): void {
  for (let i = 0; i < length; i++) {
    const x = cells[at[i]];
    const to = groups[i] * width + lane;
    if (x < totals[to]) totals[to] = x;
  }
}

const counted = new Float64Array(BLOCK);
/** The cells that count, others as NaN. */
function onlyCounted({ cells: { cells, none, at }, filter }: GivenLane, length: number): Doubles {
  for (let i = 0; i < length; i++) {
    const x = cells[at === null ? i : at[i]];
    counted[i] = x === none || (filter !== null && filter[i] === 0) ? Number.NaN : x;
  }
  return counted;
}

/** The largest (sign 1) or smallest (-1) of each group. */
function keepBest(of: TotalsOf, groups: Int32Array, length: number, lane: GivenLane, sign: 1 | -1): void {
  const { cells, none, at } = lane.cells;
  const isAsGiven = lane.filter === null && (none === null || none !== none);
  const numbers = isAsGiven ? (cells as Doubles) : onlyCounted(lane, length);
  const places = isAsGiven && at !== null ? at : everyPlace;
  (sign === 1 ? keepLargest : keepSmallest)(of, groups, length, numbers, places);
}

/** The loops in JavaScript, over arrays of any memory. A loop for each case, so that none tests what does not change. */
export const plainLoops: Loops = {
  scratch: new Float64Array(BLOCK),
  doubles: (length) => new Float64Array(length),
  ints: (length) => new Int32Array(length),
  bytes: (length) => new Uint8Array(length),
  kept: (array) => array,
  end: () => {},

  // Doubles lie as they are; others are unpacked, so that every loop behind is compiled for one type of array.
  holdCells: (cells, held) => {
    if (cells instanceof Float64Array) return cells;
    const out = held ?? new Float64Array(BLOCK);
    out.set(cells);
    return out;
  },
  holdCodes: (codes, held) => {
    if (codes instanceof Int32Array) return codes;
    const out = held ?? new Int32Array(BLOCK);
    out.set(codes);
    return out;
  },
  toDoubles: ({ cells, none, at }, length, out) => {
    for (let i = 0; i < length; i++) {
      const x = cells[at === null ? i : at[i]];
      out[i] = x === none ? Number.NaN : x;
    }
  },
  scaled: (stored, scale, length, out) => {
    for (let i = 0; i < length; i++) out[i] = stored[i] / scale;
  },
  gatherDoubles: (values, at, length, out) => {
    for (let i = 0; i < length; i++) out[i] = values[at[i]];
  },
  gatherInts: (codes, at, length, out) => {
    if (at === null) for (let i = 0; i < length; i++) out[i] = codes[i];
    else for (let i = 0; i < length; i++) out[i] = codes[at[i]];
  },

  pickRange: (cells, limits, from, length, out) =>
    from === null
      ? pickRun(cells as Doubles, limits.low, limits.high, length, out)
      : pickAmong(cells as Doubles, limits, from, length, out),
  pickCodes: (codes, marks, from, length, out) => {
    let kept = 0;
    if (from === null)
      for (let i = 0; i < length; i++) {
        out[kept] = i;
        kept += marks[codes[i] + 1];
      }
    else
      for (let i = 0; i < length; i++) {
        const at = from[i];
        out[kept] = at;
        kept += marks[codes[at] + 1];
      }
    return kept;
  },
  pickNear: (cells, { low, table }, from, length, out) => {
    let kept = 0;
    for (let i = 0; i < length; i++) {
      const at = from === null ? i : from[i];
      out[kept] = at;
      // What is no number becomes 0.
      kept += table[Math.max(0, cells[at] - low + 1) | 0];
    }
    return kept;
  },

  groupCodes: (codes, groupOfCode, at, length, groups) =>
    at === null
      ? groupAllCodes(codes as Int32Array, groupOfCode, length, groups)
      : groupSomeCodes(codes as Int32Array, groupOfCode, at, length, groups),
  groupNear: (values, near, at, length, groups) =>
    groupSomeNear(values as Doubles, near, at ?? everyPlace, length, groups),
  groupPairs: (pairs, width, second, length, groups) => {
    let all = 0;
    for (let i = 0; i < length; i++) {
      const first = groups[i];
      const group = pairs[first * width + second[i]];
      groups[i] = group < 0 ? ~first : group;
      all |= group;
    }
    return all < 0;
  },

  test: (name, a, b, out, length) => {
    if (typeof b === "number") TESTS_BESIDE[name](a, b, out, length);
    else TESTS[name](a, b, out, length);
  },
  reckon: (operator, a, b, out, length) => ARITHMETIC[operator](a, b, out, length),

  records: (pairs) => {
    const cells: Cells = { cells: new Float64Array(0), none: null, at: null };
    const width = 2 * (pairs.sums + pairs.largest + pairs.smallest);
    const lanes = Array.from(
      { length: width },
      (_, at): GivenLane => ({
        at,
        given: "zeros",
        cells,
        filter: null,
      }),
    );
    return { ...pairs, lanes };
  },
  fillValues: (into, _empty, cells, _length, filter) => {
    Object.assign(into, { given: "values", cells, filter });
  },
  fillCounts: (into, cells, _length, filter) => {
    Object.assign(into, { given: "counts", cells, filter });
  },
  fillFilter: (into, filter) => {
    Object.assign(into, { given: "filter", filter });
  },
  fillOnes: (into) => {
    Object.assign(into, { given: "ones" });
  },
  foldLanes: (totals, groups, { sums, largest, lanes }, length) => {
    const width = lanes.length;
    for (const lane of lanes as GivenLane[]) {
      const { at, given, filter, cells } = lane;
      const of = { totals, width, at };
      if (given === "zeros") continue;
      if (at >= 2 * sums) keepBest(of, groups, length, lane, at < 2 * (sums + largest) ? 1 : -1);
      else if (given === "ones") addOnes(of, groups, length);
      else if (given === "filter") addFilter(of, groups, length, filter as Uint8Array);
      else if (given === "values" && filter === null && cells.none === null)
        addAll(of, groups, length, cells.cells as Doubles, cells.at);
      else addCells(of, groups, length, lane);
    }
  },
  sumCompensated: ({ sums, lost, counts }, numbers, groups, length, filter) => {
    for (let i = 0; i < length; i++) {
      const x = numbers[i];
      if (x !== x || (filter !== null && filter[i] === 0)) continue;
      const g = groups[i];
      const s = sums[g];
      const t = s + x;
      // The exact error of one addition without a branch (D. E. Knuth, The Art of Computer Programming 2,
      // 4.2.2).
      const part = t - s;
      lost[g] += s - (t - part) + (x - part);
      sums[g] = t;
      counts[g]++;
    }
  },
  mark: ({ low, words, marks, counts }, values, groups, length, filter) => {
    const none = values instanceof Int32Array ? -1 : Number.NaN;
    for (let i = 0; i < length; i++) {
      const value = values[i];
      if (value === none || value !== value || (filter !== null && filter[i] === 0)) continue;
      const at = value - low;
      const group = groups[i];
      const word = group * words + (at >>> 5);
      const bit = 1 << (at & 31);
      if ((marks[word] & bit) !== 0) continue;
      marks[word] |= bit;
      counts[group]++;
    }
  },
  countBins: ({ low, unit, width, counts }, numbers, groups, length, filter) => {
    // A power of two, so that the product is exact.
    const per = 1 / unit;
    for (let i = 0; i < length; i++) {
      const x = numbers[i];
      if (x !== x || (filter !== null && filter[i] === 0)) continue;
      counts[groups[i] * width + (((x - low) * per) | 0)]++;
    }
  },
};
