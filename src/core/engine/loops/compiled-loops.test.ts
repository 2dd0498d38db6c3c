import { readFileSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type CompiledLoops, compiledLoops } from "./compiled-loops";
import { BLOCK, type Loops, OPERATORS, TESTS } from "./loops";
import { plainLoops } from "./plain-loops";

const take = compiledLoops(new WebAssembly.Module(readFileSync("dist/scan-loops.wasm")));
const GROUPS = 7;

const number = fc.oneof(
  fc.integer({ min: -40, max: 40 }),
  fc.double({ noDefaultInfinity: true }),
  fc.constantFrom(Number.NaN, 0, -0, 1e308, -1e308, 5e-324, 2 ** 53),
);
const length = fc.oneof(fc.integer({ min: 0, max: 40 }), fc.constantFrom(BLOCK - 1, BLOCK));
const block = length.chain((n) => {
  const many = <T>(of: fc.Arbitrary<T>) => fc.array(of, { minLength: n, maxLength: n });
  return fc.record({
    numbers: many(number),
    others: many(number),
    whole: many(fc.constantFrom(-3, -2, -1, 0, 1, 2, 3, 4)),
    codes: many(fc.integer({ min: -1, max: 6 })),
    groups: many(fc.integer({ min: 0, max: GROUPS - 1 })),
    // Of some places in order, so that there are fewer than in the run.
    among: many(fc.boolean()).map((kept) => kept.flatMap((k, i) => (k ? [i] : []))),
    filter: fc.option(many(fc.constantFrom(0, 1)), { nil: null }),
    limits: fc.record({ low: number, high: number }),
    table: fc.array(fc.integer({ min: -1, max: 5 }), { minLength: 8, maxLength: 8 }),
  });
});
type Block = typeof block extends fc.Arbitrary<infer T> ? T : never;

/** The arrays of a block, in the memory of loops. */
function placed(given: Block, loops: Loops) {
  const doubles = (values: number[]) => {
    const made = loops.doubles(values.length);
    made.set(values);
    return made;
  };
  const ints = (values: number[]) => {
    const made = loops.ints(values.length);
    made.set(values);
    return made;
  };
  const bytes = (values: number[]) => {
    const made = loops.bytes(values.length);
    made.set(values);
    return made;
  };
  return {
    numbers: doubles(given.numbers),
    others: doubles(given.others),
    whole: doubles(given.whole),
    codes: ints(given.codes),
    groups: ints(given.groups),
    among: ints(given.among),
    filter: given.filter && bytes(given.filter),
    table: ints(given.table),
    marks: bytes(given.table.map((t) => t & 1)),
    length: given.numbers.length,
  };
}

/** Both give the same of a block, to the last bit and with the sign of zero, or null where it is NaN. */
function same(run: (loops: Loops, placedBlock: ReturnType<typeof placed>, given: Block) => unknown): void {
  fc.assert(
    fc.property(block, (given) => {
      const loops = take();
      try {
        expect(run(loops, placed(given, loops), given)).toEqual(
          run(plainLoops, placed(given, plainLoops), given),
        );
      } finally {
        loops.end();
      }
    }),
    { numRuns: 400 },
  );
}
const list = (array: Float64Array | Int32Array | Uint8Array, to = array.length) =>
  Array.from(array).slice(0, to);

describe("compiled loops do what the plain ones do", () => {
  it("with cells as they are stored", () => {
    const cells = fc.oneof(
      fc.int8Array({ maxLength: BLOCK }),
      fc.int16Array({ maxLength: BLOCK }),
      fc.int32Array({ maxLength: BLOCK }),
      fc.float64Array({ maxLength: BLOCK }),
    );
    fc.assert(
      fc.property(cells, (stored) => {
        const loops = take();
        expect(list(loops.toDoubles(stored, loops.doubles(BLOCK)), stored.length)).toEqual(
          Array.from(stored),
        );
        if (!(stored instanceof Float64Array))
          expect(list(loops.toInts(stored, loops.ints(BLOCK)), stored.length)).toEqual(Array.from(stored));
        loops.end();
      }),
    );
  });

  it("with nulls, scales and places", () =>
    same((loops, { numbers, whole, codes, among, length }) => {
      const [marked, divided, some] = [loops.doubles(BLOCK), loops.doubles(BLOCK), loops.doubles(BLOCK)];
      const someCodes = loops.ints(BLOCK);
      loops.markNulls(whole, -3, length, marked);
      loops.scaled(numbers, 100, length, divided);
      loops.gatherDoubles(numbers, among, among.length, some);
      loops.gatherInts(codes, among, among.length, someCodes);
      return [
        list(marked, length),
        list(divided, length),
        list(some, among.length),
        list(someCodes, among.length),
      ];
    }));

  it("picking rows by a range, by codes and by values", () =>
    same((loops, { numbers, whole, codes, among, marks, length }, { limits }) =>
      [null, among].flatMap((from) => {
        const of = from ? from.length : length;
        return [
          (out: Int32Array) => loops.pickRange(numbers, limits, from, of, out),
          (out: Int32Array) => loops.pickCodes(codes, marks, from, of, out),
          (out: Int32Array) => loops.pickNear(whole, { low: -2, table: marks }, from, of, out),
        ].map((pick) => {
          const out = loops.ints(BLOCK + 4);
          return list(out, pick(out));
        });
      }),
    ));

  it("picking among the places that they write to", () =>
    same((loops, { numbers, among }, { limits }) => {
      const kept = loops.pickRange(numbers, limits, among, among.length, among);
      return list(among, kept);
    }));

  it("finding groups by codes, by values and by pairs", () =>
    same((loops, { whole, codes, among, groups, table, length }) => {
      const found = [null, among].flatMap((at) => {
        const of = at ? at.length : length;
        const [byCode, byValue] = [loops.ints(BLOCK), loops.ints(BLOCK)];
        return [
          loops.groupCodes(codes, table, at, of, byCode),
          loops.groupNear(whole, { low: -1, table: table.subarray(0, 4) }, at, of, byValue),
          list(byCode, of),
          list(byValue, of),
        ];
      });
      const pairs = loops.ints(GROUPS * 8);
      for (let i = 0; i < pairs.length; i++) pairs[i] = (i % 9) - 1;
      const second = loops.ints(BLOCK);
      for (let i = 0; i < length; i++) second[i] = codes[i] + 1;
      return [...found, loops.groupPairs(pairs, 8, second, length, groups), list(groups, length)];
    }));

  it("comparing and reckoning", () =>
    same((loops, { numbers, others, length }, { limits }) => [
      ...TESTS.flatMap((name) =>
        [others, limits.low].map((other) => {
          const out = loops.bytes(BLOCK);
          loops.test(name, numbers, other, out, length);
          return list(out, length);
        }),
      ),
      ...OPERATORS.map((operator) => {
        const out = loops.doubles(BLOCK);
        loops.reckon(operator, numbers, others, out, length);
        return list(out, length);
      }),
    ]));

  it("adding up, counting and taking the largest and smallest", () =>
    same((loops, { numbers, whole, among, groups, filter, length }) => {
      const sums = () => ({ sums: loops.doubles(GROUPS), counts: loops.ints(GROUPS) });
      const [full, some, counted] = [loops.doubles(GROUPS), loops.doubles(GROUPS), loops.ints(GROUPS)];
      const [wholes, parts] = [sums(), { ...sums(), lost: loops.doubles(GROUPS) }];
      const most = loops.doubles(GROUPS).fill(Number.NEGATIVE_INFINITY);
      const least = loops.doubles(GROUPS).fill(Number.POSITIVE_INFINITY);
      loops.sumFull(full, whole, null, groups, length);
      loops.sumFull(some, whole, among, groups, among.length);
      loops.sumWhole(wholes, whole, groups, length, filter);
      loops.sumCompensated(parts, numbers, groups, length, filter);
      loops.countRows(counted, groups, length, filter);
      loops.extreme(1, most, groups, length, numbers, filter);
      loops.extreme(-1, least, groups, length, numbers, filter);
      const all = [full, some, counted, ...Object.values(wholes), ...Object.values(parts), most, least];
      return all.map((array) => list(array));
    }));

  it("marking values and counting them in bins", () =>
    same((loops, { whole, codes, groups, filter, length }) => {
      const marks = () => ({
        low: -3,
        words: 2,
        marks: loops.ints(2 * GROUPS),
        counts: loops.doubles(GROUPS),
      });
      const [byNumber, byCode] = [marks(), { ...marks(), low: 0 }];
      for (let i = 0; i < length; i += 5) whole[i] = Number.NaN;
      const bins = { low: -3, unit: 4, width: 2, counts: loops.ints(2 * GROUPS) };
      loops.mark(byNumber, whole, groups, length, filter);
      loops.mark(byCode, codes, groups, length, filter);
      loops.countBins(bins, whole, groups, length, filter);
      return [byNumber.marks, byNumber.counts, byCode.marks, byCode.counts, bins.counts].map((a) => list(a));
    }));
});

describe("the memory of compiled loops", () => {
  it("is all zeros again for the next scan, and what was kept stays", () => {
    const first = take() as CompiledLoops;
    const filled = first.doubles(1000).fill(7);
    const kept = first.kept(filled);
    first.end();
    const next = take();
    expect(next).toBe(first);
    expect(next.doubles(1000)).toEqual(new Float64Array(1000));
    next.doubles(2000).fill(3);
    expect(kept).toEqual(new Float64Array(1000).fill(7));
    next.end();
  });

  it("serves two scans at a time apart", () => {
    const [one, other] = [take(), take()];
    const [a, b] = [one.ints(10).fill(1), other.ints(10).fill(2)];
    expect([a[3], b[3]]).toEqual([1, 2]);
    one.end();
    other.end();
  });

  it("gives other arrays where it is full, which all loops take", () => {
    const loops = take();
    const sums = loops.doubles(9_000_000);
    expect(sums.buffer).not.toBe(loops.scratch.buffer);
    const numbers = loops.doubles(3).fill(2);
    loops.sumFull(sums, numbers, null, loops.ints(3), 3);
    expect(sums[0]).toBe(6);
    expect(loops.kept(sums)).toBe(sums);
    loops.end();
  });

  it("is given back by a scan that needed much of it", () => {
    const large = take();
    large.doubles(4_000_000);
    large.end();
    expect(take()).not.toBe(large);
  });
});
