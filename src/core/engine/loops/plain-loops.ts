import { BLOCK, type Cells, type Lane, type Loops, type Operator, type TestName } from "./loops";

type Doubles = Float64Array;

/** Where all places of a run are meant, they are read here: one loop serves both. */
const EVERY = Int32Array.from({ length: BLOCK }, (_, i) => i);

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

/** A lane is what it was given; null stands for zeros. */
interface GivenLane extends Lane {
  given: "ones" | "values" | "counts" | null;
  cells: Cells;
  filter: Uint8Array | null;
  /** Where a filter's rows stand as numbers. */
  own?: Float64Array;
}

/** Numbers of a block's rows, of each the one at its place, and where their totals stand in those of a group. */
interface Taken {
  numbers: Doubles;
  places: Int32Array;
  width: number;
  lane: number;
}

function addOnes(totals: Doubles, groups: Int32Array, length: number, { width, lane }: Taken): void {
  for (let i = 0; i < length; i++) totals[groups[i] * width + lane]++;
}

function add(
  totals: Doubles,
  groups: Int32Array,
  length: number,
  { numbers, places, width, lane }: Taken,
): void {
  for (let i = 0; i < length; i++) totals[groups[i] * width + lane] += numbers[places[i]];
}

function keepLargest(
  totals: Doubles,
  groups: Int32Array,
  length: number,
  { numbers, places, width, lane }: Taken,
): void {
  for (let i = 0; i < length; i++) {
    const x = numbers[places[i]];
    const to = groups[i] * width + lane;
    if (x > totals[to]) totals[to] = x;
  }
}

function keepSmallest(
  totals: Doubles,
  groups: Int32Array,
  length: number,
  { numbers, places, width, lane }: Taken,
): void {
  for (let i = 0; i < length; i++) {
    const x = numbers[places[i]];
    const to = groups[i] * width + lane;
    if (x < totals[to]) totals[to] = x;
  }
}

const counted = new Float64Array(BLOCK);
/** The cells of a lane, or where they are counted 1, and `empty` for those that do not count. */
function countedOf({ cells: { cells, none, at }, filter, given }: GivenLane, length: number, empty: number) {
  const places = at ?? EVERY;
  for (let i = 0; i < length; i++) {
    const x = cells[places[i]];
    const counts = x !== none && x === x && (filter === null || filter[i] !== 0);
    counted[i] = counts ? (given === "counts" ? 1 : x) : empty;
  }
  return counted;
}

/** How many bits of a word are set (H. S. Warren, Hacker's Delight, 5-1). */
function bitsIn(word: number): number {
  const pairs = word - ((word >>> 1) & 0x55555555);
  const fours = (pairs & 0x33333333) + ((pairs >>> 2) & 0x33333333);
  return Math.imul((fours + (fours >>> 4)) & 0x0f0f0f0f, 0x01010101) >>> 24;
}

/**
 * The loops in JavaScript, over arrays of any memory. A loop for each case, so that none tests what
 * does not change.
 */
export const plainLoops: Loops = {
  scratch: new Float64Array(BLOCK),
  doubles: (length) => new Float64Array(length),
  ints: (length) => new Int32Array(length),
  bytes: (length) => new Uint8Array(length),
  kept: (array) => array,
  end: () => {},

  // Doubles lie as they are; others are unpacked, so that every loop behind is compiled for one type.
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
    const places = at ?? EVERY;
    for (let i = 0; i < length; i++) {
      const x = cells[places[i]];
      out[i] = x === none ? Number.NaN : x;
    }
  },
  scaled: (stored, scale, length, out) => {
    for (let i = 0; i < length; i++) out[i] = stored[i] / scale;
  },
  gatherDoubles: (values, at, length, out) => {
    for (let i = 0; i < length; i++) out[i] = values[at[i]];
  },
  gatherInts: (codes, from, length, out) => {
    const at = from ?? EVERY;
    for (let i = 0; i < length; i++) out[i] = codes[at[i]];
  },

  pickRange: (cells, limits, from, length, out) =>
    from === null
      ? pickRun(cells as Doubles, limits.low, limits.high, length, out)
      : pickAmong(cells as Doubles, limits, from, length, out),
  pickCodes: (codes, marks, from, length, out) => {
    const places = from ?? EVERY;
    let kept = 0;
    for (let i = 0; i < length; i++) {
      const at = places[i];
      out[kept] = at;
      kept += marks[codes[at] + 1];
    }
    return kept;
  },
  pickNear: (cells, { low, table }, from, length, out) => {
    const places = from ?? EVERY;
    let kept = 0;
    for (let i = 0; i < length; i++) {
      const at = places[i];
      out[kept] = at;
      // What is no number becomes 0.
      kept += table[Math.max(0, cells[at] - low + 1) | 0];
    }
    return kept;
  },

  groupCodes: (codes, groupOfCode, at, length, groups) => {
    const places = at ?? EVERY;
    let all = 0;
    for (let i = 0; i < length; i++) {
      const group = groupOfCode[codes[places[i]] + 1];
      groups[i] = group;
      all |= group;
    }
    return all < 0;
  },
  groupNear: (values, { low, table }, at, length, groups) => {
    const places = at ?? EVERY;
    let all = 0;
    for (let i = 0; i < length; i++) {
      const distance = values[places[i]] - low;
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
  numberPairs: (firsts, width, second, length) => {
    for (let i = 0; i < length; i++) firsts[i] = firsts[i] * width + second[i];
  },

  test: (name, a, b, out, length) => TESTS[name](a, b, out, length),
  reckon: (operator, a, b, out, length) => ARITHMETIC[operator](a, b, out, length),

  records: (pairs) => {
    const nothing = {
      given: null,
      cells: { cells: new Float64Array(0), none: null, at: null },
      filter: null,
    };
    const width = 2 * (pairs.sums + pairs.largest + pairs.smallest);
    return { ...pairs, lanes: Array.from({ length: width }, (_, at): GivenLane => ({ at, ...nothing })) };
  },
  fillValues: (into, _empty, cells, _length, filter) => {
    Object.assign(into, { given: "values", cells, filter });
  },
  fillCounts: (into, cells, _length, filter) => {
    Object.assign(into, { given: "counts", cells, filter });
  },
  fillFilter: (into, filter) => {
    const { own = new Float64Array(BLOCK) } = into as GivenLane;
    own.set(filter);
    Object.assign(into, { given: "values", cells: { cells: own, none: null, at: null }, filter: null, own });
  },
  fillOnes: (into) => {
    Object.assign(into, { given: "ones" });
  },
  foldLanes: (totals, groups, { sums, largest, lanes }, length) => {
    for (const lane of lanes as GivenLane[]) {
      const { given, cells, filter, at } = lane;
      if (given === null) continue;
      const isSum = at < 2 * sums;
      const fold = !isSum
        ? at < 2 * (sums + largest)
          ? keepLargest
          : keepSmallest
        : given === "ones"
          ? addOnes
          : add;
      const isAsGiven =
        given !== "counts" &&
        filter === null &&
        (cells.none === null || (!isSum && cells.none !== cells.none));
      const numbers = isAsGiven ? (cells.cells as Doubles) : countedOf(lane, length, isSum ? 0 : Number.NaN);
      const places = (isAsGiven && cells.at) || EVERY;
      fold(totals, groups, length, { numbers, places, width: lanes.length, lane: at });
    }
  },
  sumCompensated: ({ sums, lost, counts }, numbers, groups, length, filter) => {
    for (let i = 0; i < length; i++) {
      const x = numbers[i];
      if (x !== x || (filter !== null && filter[i] === 0)) continue;
      const g = groups[i];
      const s = sums[g];
      const t = s + x;
      // The exact error of one addition without a branch (D. E. Knuth, The Art of Computer
      // Programming 2, 4.2.2).
      const part = t - s;
      lost[g] += s - (t - part) + (x - part);
      sums[g] = t;
      counts[g]++;
    }
  },
  mark: ({ low, words, marks }, counts, values, groups, length, filter) => {
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
  settleMarks: () => {},
  unite: ({ marks, words }, counts, group, others) => {
    for (let i = 0, to = group * words; i < words; i++, to++) {
      const fresh = others[i] & ~marks[to];
      if (fresh === 0) continue;
      counts[group] += bitsIn(fresh);
      marks[to] |= fresh;
    }
  },
  countBins: ({ low, shift, width, counts }, numbers, groups, length, filter, written) => {
    const each = width * 2 ** shift;
    const { places = null, count: before = 0 } = written ?? {};
    let at = before;
    for (let i = 0; i < length; i++) {
      const x = numbers[i];
      if (x !== x || (filter !== null && filter[i] === 0)) continue;
      const distance = x - low;
      counts[groups[i] * width + (distance >>> shift)]++;
      if (places !== null) places[at] = groups[i] * each + distance;
      at++;
    }
    return at - before;
  },
  addBins: ({ width, counts }, group, others, from) => {
    for (let i = 0, at = from * width, to = group * width; i < width; i++) counts[to++] += others[at++];
  },
  pickPlaces: (places, marks, shift, length, out) => {
    let kept = 0;
    for (let i = 0; i < length; i++) {
      out[kept] = places[i];
      kept += marks[places[i] >>> shift];
    }
    return kept;
  },
};
