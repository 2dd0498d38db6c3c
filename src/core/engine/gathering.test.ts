import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { merged } from "./accumulators/accumulator";
import { Distinct } from "./accumulators/distinct";
import { Percentile } from "./accumulators/percentile";
import { selectNth } from "./accumulators/select-nth";
import { takeLoops } from "./loops/current-loops";
import { plainLoops } from "./loops/plain-loops";

const value = fc.oneof(
  fc.integer({ min: -3, max: 3 }),
  fc.constantFrom(-0, 0.5, 1e300, -1e300, 2 ** 40, Number.MIN_VALUE),
  fc.double({ noNaN: true, noDefaultInfinity: true }),
);

describe("selection of the n-th", () => {
  it("puts every n-th at its place with smaller ones before it, on any order and many equals", () => {
    fc.assert(
      fc.property(fc.array(value, { minLength: 1, maxLength: 60 }), fc.nat(), (values, n) => {
        const k = n % values.length;
        const array = Float64Array.from(values);
        selectNth(array, 0, array.length - 1, k);
        const sorted = Float64Array.from(values).sort();
        expect(array[k] + 0).toBe(sorted[k] + 0);
        for (let i = 0; i < array.length; i++)
          expect(i < k ? array[i] <= array[k] : array[i] >= array[k]).toBe(true);
      }),
      { numRuns: 500, seed: 1 },
    );
  });

  it("stays fast where the order works against it", () => {
    const shapes = [
      (i: number) => i,
      (i: number) => -i,
      (i: number) => i % 2,
      () => 7,
      (i: number) => (i < 50_000 ? i : 100_000 - i),
      (i: number) => (i * 7919) % 100_003,
    ];
    for (const shape of shapes) {
      const array = Float64Array.from({ length: 100_000 }, (_, i) => shape(i));
      const sorted = array.slice().sort();
      for (const k of [0, 1, 33_333, 50_000, 99_999]) {
        const copy = array.slice();
        selectNth(copy, 0, copy.length - 1, k);
        expect(copy[k]).toBe(sorted[k]);
      }
    }
  });
});

const GROUPS = 4;
const rows = fc.array(
  fc.record({ group: fc.nat(GROUPS - 1), value: fc.option(value, { nil: Number.NaN }), kept: fc.boolean() }),
  { maxLength: 80 },
);
type Rows = { group: number; value: number; kept: boolean }[];
const grouped = (data: Rows) => ({
  groups: Int32Array.from(data, (r) => r.group),
  length: data.length,
  size: GROUPS,
  loops: plainLoops,
});
const numbers = (data: Rows) => Float64Array.from(data, (r) => r.value);
const mask = (data: Rows) => Uint8Array.from(data, (r) => Number(r.kept));
const keptOf = (data: Rows, group: number) =>
  data.filter((r) => r.kept && r.group === group && !Number.isNaN(r.value)).map((r) => r.value + 0);

describe("distinct values", () => {
  it("are counted the same marked and hashed, in blocks and merged, as a set counts them", () => {
    fc.assert(
      fc.property(rows, rows, fc.boolean(), (first, second, whole) => {
        const round = (data: Rows) =>
          whole ? data.map((r) => ({ ...r, value: Math.round(Math.max(-50, Math.min(50, r.value))) })) : data;
        const blocks = [round(first), round(second)];
        const within = whole ? { low: -50, span: 101 } : null;
        const distinct = new Distinct(null);
        for (const data of blocks)
          distinct.add(grouped(data), { numbers: numbers(data), within }, mask(data));
        const all = blocks.flat();
        for (let g = 0; g < GROUPS; g++) expect(distinct.result(g)).toBe(new Set(keptOf(all, g)).size);
        const pairs = merged(distinct, Int32Array.from([0, 1, 0, 1]), 2);
        expect(pairs.result(0)).toBe(new Set([...keptOf(all, 0), ...keptOf(all, 2)]).size);
        expect(pairs.result(1)).toBe(new Set([...keptOf(all, 1), ...keptOf(all, 3)]).size);
        expect(merged(pairs, Int32Array.from([0, 0]), 1).result(0)).toBe(
          new Set([0, 1, 2, 3].flatMap((g) => keptOf(all, g))).size,
        );
      }),
      { numRuns: 300, seed: 2 },
    );
  });

  it("survive a range that does not fit what came before, and hundreds of thousands of values", () => {
    const distinct = new Distinct(null);
    const one = (values: number[], within: { low: number; span: number } | null) =>
      distinct.add(
        { groups: new Int32Array(values.length), length: values.length, size: 1, loops: plainLoops },
        { numbers: Float64Array.from(values), within },
        null,
      );
    one([1, 2, 2, 3], { low: 0, span: 10 });
    one([2.5, 3, -7], null);
    expect(distinct.result(0)).toBe(5);
    const many = new Distinct(null);
    for (let from = 0; from < 300_000; from += 2000) {
      const values = Float64Array.from({ length: 2000 }, (_, i) => ((from + i) % 150_000) / 7);
      many.add(
        { groups: Int32Array.from(values, (_, i) => i % 2), length: 2000, size: 2, loops: plainLoops },
        { numbers: values },
        null,
      );
    }
    expect([many.result(0), many.result(1)]).toEqual([75_000, 75_000]);
    expect(merged(many, new Int32Array(2), 1).result(0)).toBe(150_000);
  });
});

describe("percentiles", () => {
  it("are those of a sorted list, in blocks, under a filter, and merged", () => {
    fc.assert(
      fc.property(rows, rows, fc.constantFrom(0, 0.25, 0.5, 0.9, 1), (first, second, share) => {
        const percentile = new Percentile(share);
        for (const data of [first, second])
          percentile.add(grouped(data), { numbers: numbers(data) }, mask(data));
        const all = [...first, ...second];
        const expected = (values: number[]) => {
          if (values.length === 0) return null;
          const sorted = Float64Array.from(values).sort();
          const at = share * (sorted.length - 1);
          const [a, b] = [sorted[Math.floor(at)], sorted[Math.ceil(at)]];
          return at === Math.floor(at) ? a : a + (b - a) * (at - Math.floor(at));
        };
        const plain = (x: unknown) => (typeof x === "number" ? x + 0 : x);
        const pairs = merged(percentile, Int32Array.from([0, 1, 0, 1]), 2);
        const whole = merged(percentile, new Int32Array(GROUPS), 1);
        expect(plain(whole.result(0))).toBe(plain(expected([0, 1, 2, 3].flatMap((g) => keptOf(all, g)))));
        expect(plain(pairs.result(1))).toBe(plain(expected([...keptOf(all, 1), ...keptOf(all, 3)])));
        for (let g = 0; g < GROUPS; g++)
          expect(plain(percentile.result(g))).toBe(plain(expected(keptOf(all, g))));
      }),
      { numRuns: 300, seed: 4 },
    );
  });

  it("are those of a sorted list where values are counted by bins, whatever is put together how", () => {
    const within = { low: -7, span: 5000 };
    const value = fc.oneof(
      fc.integer({ min: -7, max: 4992 }),
      fc.constantFrom(-7, 0, 4992),
      fc.constant(Number.NaN),
    );
    const wide = fc.array(fc.record({ group: fc.integer({ min: 0, max: 3 }), value }), { maxLength: 120 });
    fc.assert(
      fc.property(
        wide,
        wide,
        fc.boolean(),
        fc.constantFrom(0, 0.3, 0.5, 1),
        (first, second, ranged, share) => {
          const gatheredOf = (data: { group: number; value: number }[], isRanged: boolean) => {
            const loops = takeLoops();
            const made = new Percentile(share);
            const groups = Int32Array.from(data, (d) => d.group);
            const held = { groups, length: data.length, size: GROUPS, loops };
            const doubles = Float64Array.from(data, (d) => d.value);
            made.add(held, { numbers: doubles, ...(isRanged ? { within } : {}) }, null);
            made.settle(loops);
            loops.end();
            return made;
          };
          const [a, b] = [gatheredOf(first, true), gatheredOf(second, ranged)];
          // Group 2 is left out, and 3 goes with 0.
          const into = Int32Array.of(0, 1, -1, 0);
          const both = a.empty();
          both.absorb(a.state(), into, 2);
          both.absorb(merged(b, Int32Array.of(0, 1, 2, 3), 4).state(), into, 2);
          const expected = (groups: number[]) => {
            const values = [...first, ...second]
              .filter((d) => groups.includes(d.group) && !Number.isNaN(d.value))
              .map((d) => d.value)
              .sort((x, y) => x - y);
            if (values.length === 0) return null;
            const at = share * (values.length - 1);
            const [low, high] = [values[Math.floor(at)], values[Math.ceil(at)]];
            return at === Math.floor(at) ? low + 0 : low + (high - low) * (at - Math.floor(at));
          };
          expect(both.result(0)).toBe(expected([0, 3]));
          expect(both.result(1)).toBe(expected([1]));
          const whole = merged(both, Int32Array.of(0, 0), 1);
          expect(whole.result(0)).toBe(expected([0, 1, 3]));
        },
      ),
      { numRuns: 300, seed: 9 },
    );
  });

  it("are those of a sorted list where values lie further apart than places reach", () => {
    for (const span of [2 ** 30, 2 ** 31, 2 ** 32, 2 ** 33]) {
      const loops = takeLoops();
      const made = new Percentile(0.5);
      const values = [5, span - 1, span - 9, 0, span - 4];
      const numbers = loops.doubles(values.length);
      numbers.set(values);
      const groups = loops.ints(values.length);
      made.add(
        { groups, length: values.length, size: 1, loops },
        { numbers, within: { low: 0, span } },
        null,
      );
      made.settle(loops);
      loops.end();
      expect([span, made.result(0)]).toEqual([span, span - 9]);
    }
  });
});
