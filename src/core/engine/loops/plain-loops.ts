import { BLOCK, type Loops, type Near, type Operator, type TestName } from "./loops";

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

function takeLargest(
  best: Doubles,
  groups: Int32Array,
  length: number,
  numbers: Doubles,
  filter: Uint8Array | null,
): void {
  if (filter === null)
    for (let i = 0; i < length; i++) if (numbers[i] > best[groups[i]]) best[groups[i]] = numbers[i];
  if (filter !== null)
    for (let i = 0; i < length; i++)
      if (filter[i] !== 0 && numbers[i] > best[groups[i]]) best[groups[i]] = numbers[i];
}

function takeSmallest(
  best: Doubles,
  groups: Int32Array,
  length: number,
  numbers: Doubles,
  filter: Uint8Array | null,
): void {
  if (filter === null)
    for (let i = 0; i < length; i++) if (numbers[i] < best[groups[i]]) best[groups[i]] = numbers[i];
  if (filter !== null)
    for (let i = 0; i < length; i++)
      if (filter[i] !== 0 && numbers[i] < best[groups[i]]) best[groups[i]] = numbers[i];
}

/** The loops in JavaScript, over arrays of any memory. A loop for each case, so that none tests what does not change. */
export const plainLoops: Loops = {
  scratch: new Float64Array(BLOCK),
  doubles: (length) => new Float64Array(length),
  ints: (length) => new Int32Array(length),
  bytes: (length) => new Uint8Array(length),
  kept: (array) => array,
  end: () => {},

  toDoubles: (cells, out) => {
    if (cells instanceof Float64Array) return cells;
    out.set(cells);
    return out;
  },
  toInts: (codes, out) => {
    if (codes instanceof Int32Array) return codes;
    out.set(codes);
    return out;
  },
  markNulls: (stored, none, length, out) => {
    for (let i = 0; i < length; i++) out[i] = stored[i] === none ? Number.NaN : stored[i];
  },
  scaled: (stored, scale, length, out) => {
    for (let i = 0; i < length; i++) out[i] = stored[i] / scale;
  },
  gatherDoubles: (values, at, length, out) => {
    for (let i = 0; i < length; i++) out[i] = values[at[i]];
  },
  gatherInts: (values, at, length, out) => {
    for (let i = 0; i < length; i++) out[i] = values[at[i]];
  },

  pickRange: (cells, limits, from, length, out) =>
    from === null
      ? pickRun(cells, limits.low, limits.high, length, out)
      : pickAmong(cells, limits, from, length, out),
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
      ? groupAllCodes(codes, groupOfCode, length, groups)
      : groupSomeCodes(codes, groupOfCode, at, length, groups),
  groupNear: (values, { low, table }: Near<Int32Array>, at, length, groups) => {
    let all = 0;
    for (let i = 0; i < length; i++) {
      const distance = values[at === null ? i : at[i]] - low;
      const group = distance >= 0 && distance < table.length ? table[distance] : -1;
      groups[i] = group;
      all |= group;
    }
    return all < 0;
  },
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

  sumFull: (sums, numbers, at, groups, length) => {
    if (at === null) for (let i = 0; i < length; i++) sums[groups[i]] += numbers[i];
    else for (let i = 0; i < length; i++) sums[groups[i]] += numbers[at[i]];
  },
  sumWhole: ({ sums, counts }, numbers, groups, length, filter) => {
    for (let i = 0; i < length; i++) {
      const x = numbers[i];
      if (x !== x || (filter !== null && filter[i] === 0)) continue;
      const g = groups[i];
      sums[g] += x;
      counts[g]++;
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
  countRows: (counts, groups, length, filter) => {
    if (filter === null) for (let i = 0; i < length; i++) counts[groups[i]]++;
    else for (let i = 0; i < length; i++) counts[groups[i]] += filter[i];
  },
  extreme: (sign, best, groups, length, numbers, filter) =>
    (sign === 1 ? takeLargest : takeSmallest)(best, groups, length, numbers, filter),
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
