import { readFileSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { seeded } from "@/demo/random";
import { madeTable, scopeColumns } from "../../../testing/made-table";
import type { Stored } from "../../data/stored";
import { querySchema } from "../../plan/query";
import { runQueries } from "../run";
import { type CompiledLoops, compiledLoops } from "./compiled-loops";
import { scanWith } from "./current-loops";
import { BLOCK, type Loops, OPERATORS, TESTS } from "./loops";
import { plainLoops } from "./plain-loops";

const module = new WebAssembly.Module(readFileSync("dist/scan-loops.wasm"));
const take = compiledLoops(module);
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
  it("with cells as they are stored, nulls, scales and places", () => {
    const cells = fc.oneof(
      fc.int8Array({ maxLength: BLOCK }),
      fc.int16Array({ maxLength: BLOCK }),
      fc.int32Array({ maxLength: BLOCK }),
      fc.float64Array({ maxLength: BLOCK }),
    );
    fc.assert(
      fc.property(cells, fc.integer({ min: -128, max: 127 }), (stored, none) => {
        const loops = take();
        const held = loops.holdCells(stored, null);
        const out = loops.doubles(BLOCK);
        loops.toDoubles({ cells: held, none, at: null }, stored.length, out);
        expect(list(out, stored.length)).toEqual(Array.from(stored, (x) => (x === none ? Number.NaN : x)));
        expect(loops.holdCells(stored, held)).toBe(held);
        loops.end();
      }),
    );
    same((loops, { numbers, codes, among, length }) => {
      const [divided, some] = [loops.doubles(BLOCK), loops.doubles(BLOCK)];
      const [allCodes, someCodes] = [loops.ints(BLOCK), loops.ints(BLOCK)];
      loops.scaled(numbers, 100, length, divided);
      loops.gatherDoubles(numbers, among, among.length, some);
      loops.gatherInts(codes, null, length, allCodes);
      loops.gatherInts(codes, among, among.length, someCodes);
      return [
        list(divided, length),
        list(some, among.length),
        list(allCodes, length),
        list(someCodes, among.length),
      ];
    });
  });

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
      const known = loops.groupPairs(pairs, 8, second, length, groups);
      const paired = list(groups, length);
      loops.numberPairs(groups, 11, second, length);
      return [...found, known, paired, list(groups, length)];
    }));

  it("comparing and reckoning", () =>
    same((loops, { numbers, others, length }) => [
      ...TESTS.map((name) => {
        const out = loops.bytes(BLOCK);
        loops.test(name, numbers, others, out, length);
        return list(out, length);
      }),
      ...OPERATORS.map((operator) => {
        const out = loops.doubles(BLOCK);
        loops.reckon(operator, numbers, others, out, length);
        return list(out, length);
      }),
    ]));

  it("filling and folding lanes, and adding up with what is lost", () =>
    same((loops, { numbers, whole, codes, among, groups, filter, length }) =>
      [null, among].flatMap((at) => {
        const of = at ? at.length : length;
        return [
          { sums: 1, largest: 0, smallest: 0 },
          { sums: 2, largest: 0, smallest: 0 },
          { sums: 1, largest: 1, smallest: 1 },
          { sums: 3, largest: 0, smallest: 0 },
        ].map((pairs) => {
          const rows = loops.records(pairs);
          const lane = (n: number) => rows.lanes[n];
          const width = rows.lanes.length;
          const cells = { cells: numbers, none: 7, at };
          loops.fillCounts(lane(0), { cells: codes, none: -1, at }, of, filter);
          loops.fillValues(lane(1), 0, { cells: whole, none: 3, at }, of, filter);
          if (pairs.largest) {
            loops.fillValues(lane(2), Number.NaN, cells, of, filter);
            loops.fillValues(lane(4), Number.NaN, cells, of, null);
          }
          if (filter && pairs.sums > 1) loops.fillFilter(lane(2), filter, of);
          const totals = loops.doubles(GROUPS * width);
          loops.foldLanes(totals, groups, rows, of);
          return list(totals);
        });
      }),
    ));

  it("adding up with what is lost", () =>
    same((loops, { numbers, groups, filter, length }) => {
      const into = { sums: loops.doubles(GROUPS), lost: loops.doubles(GROUPS), counts: loops.ints(GROUPS) };
      loops.sumCompensated(into, numbers, groups, length, filter);
      return Object.values(into).map((array) => list(array));
    }));

  it("reading cells of every width", () => {
    const wide = fc.constantFrom(Int8Array, Int16Array, Int32Array);
    const limit = fc.double({ noNaN: false, min: -200, max: 200 });
    const cell = fc.integer({ min: -127, max: 127 });
    fc.assert(
      fc.property(wide, fc.array(cell, { maxLength: 80 }), limit, limit, (Of, values, low, high) => {
        const loops = take();
        const cells = loops.holdCells(Of.from(values), null);
        const doubles = Float64Array.from(values);
        const answers = (of: Loops, held: typeof cells) => {
          const at = of.ints(BLOCK);
          at.set([...values.keys()].filter((i) => i % 3 > 0));
          const some = values.length - Math.ceil(values.length / 3);
          return [null, at].flatMap((from) => {
            const length = from ? some : values.length;
            const [picked, near, groups, codes] = [0, 1, 2, 3].map(() => of.ints(BLOCK + 4));
            const marks = of.bytes(260);
            for (let i = 0; i < marks.length; i++) marks[i] = i % 3 === 0 ? 1 : 0;
            const table = of.ints(100);
            for (let i = 0; i < table.length; i++) table[i] = i % 7;
            const kept = of.pickRange(held, { low, high }, from, length, picked);
            const among = of.pickNear(held, { low: -100, table: marks }, from, length, near);
            const isNew = of.groupNear(held, { low: -50, table }, from, length, groups);
            of.gatherInts(held as Int32Array, from, length, codes);
            const rows = of.records({ sums: 1, largest: 0, smallest: 0 });
            of.fillValues(rows.lanes[1], 0, { cells: held, none: Number.NaN, at: from }, length, null);
            of.fillOnes(rows.lanes[0]);
            const totals = of.doubles(14);
            for (let i = 0; i < length; i++) groups[i] = Math.max(0, groups[i]);
            of.foldLanes(totals, groups, rows, length);
            const doubles = of.doubles(BLOCK);
            of.toDoubles({ cells: held, none: 5, at: from }, length, doubles);
            return [
              list(picked, kept),
              list(near, among),
              isNew,
              list(groups, length),
              list(codes, length),
              list(totals),
              list(doubles, length),
            ];
          });
        };
        expect(answers(loops, cells)).toEqual(answers(plainLoops, doubles));
        loops.end();
      }),
      { numRuns: 400 },
    );
  });

  it("finding groups by values that all have one, wherever they lie", () => {
    const wide = fc.constantFrom(Int8Array, Int16Array, Int32Array, Float64Array);
    const distances = fc.array(fc.integer({ min: 0, max: 9 }), { minLength: 1, maxLength: 80 });
    fc.assert(
      fc.property(wide, distances, fc.double({ min: 0, max: 1, noNaN: true }), (Of, all, where) => {
        const most = Of === Float64Array ? 2 ** 40 : 2 ** (8 * Of.BYTES_PER_ELEMENT - 1) - 1;
        const low = Math.round((2 * where - 1) * (most - 9));
        const values = all.map((distance) => low + distance);
        const groups = (of: Loops, cells: Stored) => {
          const table = of.ints(10);
          // The last one has no group yet.
          for (let i = 0; i < 10; i++) table[i] = i === 9 ? -1 : 3 * i;
          const found = of.ints(BLOCK);
          const isOpen = of.groupNear(cells, { low, table, isWhole: true }, null, all.length, found);
          return [isOpen, list(found, all.length)];
        };
        const loops = take();
        const expected = [all.includes(9), all.map((distance) => (distance === 9 ? -1 : 3 * distance))];
        expect(groups(loops, loops.holdCells(Of.from(values), null))).toEqual(expected);
        expect(groups(plainLoops, Float64Array.from(values))).toEqual(expected);
        loops.end();
      }),
      { numRuns: 300 },
    );
  });

  it("marking values and counting them in bins, and adding others to them", () =>
    same((loops, { whole, codes, groups, filter, length }) => {
      const marked = () => ({ low: -3, words: 2, marks: loops.ints(2 * GROUPS) });
      const [byNumber, byCode] = [marked(), { ...marked(), low: 0 }];
      const counts = [loops.doubles(GROUPS), loops.doubles(GROUPS)];
      for (let i = 0; i < length; i += 5) whole[i] = Number.NaN;
      const bins = { low: -3, shift: 2, width: 2, counts: loops.ints(2 * GROUPS) };
      const written = { places: loops.ints(BLOCK + 3), count: 3 };
      loops.mark(byNumber, counts[0], whole, groups, length, filter);
      loops.mark(byCode, counts[1], codes, groups, length, filter);
      const counted = loops.countBins(bins, whole, groups, length, filter, written);
      const again = loops.countBins(bins, whole, groups, length, filter, null);
      const [marks, out] = [loops.bytes(2 * GROUPS), loops.ints(BLOCK + 4)];
      for (let i = 0; i < marks.length; i++) marks[i] = i % 3 === 0 ? 1 : 0;
      const found = loops.pickPlaces(written.places.subarray(3), marks, 2, counted, out);
      loops.unite(byNumber, counts[0], 3, Int32Array.of(0b1010, -1));
      loops.addBins(bins, 2, Int32Array.of(9, 9, 1, 2, 3, 4), 1);
      loops.settleMarks(byNumber, counts[0]);
      loops.settleMarks(byCode, counts[1]);
      // What is added after that is settled anew.
      loops.unite(byCode, counts[1], 5, Int32Array.of(0b110, 1));
      loops.settleMarks(byCode, counts[1]);
      const arrays = [byNumber.marks, byCode.marks, ...counts, bins.counts, written.places];
      return [counted, again, list(out, found), ...arrays.map((a) => list(a))];
    }));

  it("marking far apart, over many blocks", () => {
    const run = (loops: Loops) => {
      const next = seeded(7);
      const [width, groupsOf] = [90_000, 40];
      const words = Math.ceil(width / 32);
      const marks = { low: 5, words, marks: loops.ints(words * groupsOf) };
      const marked = loops.doubles(groupsOf);
      const [numbers, groups] = [loops.doubles(BLOCK), loops.ints(BLOCK)];
      for (let block = 0; block < 60; block++) {
        for (let i = 0; i < BLOCK; i++) {
          numbers[i] = 5 + Math.floor(next() ** 3 * width);
          groups[i] = Math.floor(next() * groupsOf);
        }
        loops.mark(marks, marked, numbers, groups, BLOCK, null);
      }
      loops.unite(marks, marked, 1, new Int32Array(words).fill(0x11111111));
      loops.settleMarks(marks, marked);
      return { marks: marks.marks, marked: list(marked) };
    };
    const loops = take();
    const [ours, theirs] = [run(loops), run(plainLoops)];
    expect(ours.marked).toEqual(theirs.marked);
    expect(Buffer.compare(Buffer.from(ours.marks.slice().buffer), Buffer.from(theirs.marks.buffer))).toBe(0);
    loops.end();
  });
});

describe("the memory of compiled loops", () => {
  it("is all zeros again for the next scan, and what was kept stays", () => {
    const first = take() as CompiledLoops;
    const filled = first.doubles(1000).fill(7);
    const kept = first.kept(filled);
    first.end();
    const next = take();
    expect(next).toBe(first);
    expect(next.doubles(1000).every((x) => x === 0)).toBe(true);
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
    const rows = loops.records({ sums: 1, largest: 1, smallest: 1 });
    const cells = { cells: Float64Array.of(2, Number.NaN, 5), none: null, at: null };
    loops.fillOnes(rows.lanes[0]);
    loops.fillValues(rows.lanes[1], 0, cells, 3, null);
    for (const lane of rows.lanes.slice(2))
      loops.fillValues(lane, Number.NaN, cells, 3, Uint8Array.of(1, 1, 1));
    loops.foldLanes(sums, loops.ints(3), rows, 3);
    expect(list(sums, 6)).toEqual([3, 7, 5, 5, 0, 0]);
    loops.fillCounts(rows.lanes[0], cells, 3, Uint8Array.of(0, 1, 1));
    loops.fillFilter(rows.lanes[1], Uint8Array.of(0, 1, 1), 3);
    loops.foldLanes(sums, loops.ints(3), rows, 3);
    expect(list(sums, 2)).toEqual([4, 9]);
    expect(loops.kept(sums)).toBe(sums);
    loops.end();
  });

  it("is given back by a scan that needed much of it", () => {
    const large = take();
    large.doubles(5_000_000);
    large.end();
    expect(take()).not.toBe(large);
  });

  it("may become full at any time of a scan, which answers the same", () => {
    const next = seeded(11);
    const [rows, many] = [30_000, 900];
    const list = <T>(of: () => T) => Array.from({ length: rows }, of);
    const table = madeTable("t", {
      few: ["text", list(() => `f${Math.floor(next() * 7)}`)],
      many: ["text", list(() => (next() < 0.02 ? null : `m${Math.floor(next() * many)}`))],
      whole: ["number", list(() => Math.floor(next() * 20_000) - 50)],
      part: ["number", list(() => (next() < 0.1 ? null : next() * 10))],
    });
    const scope = { tables: [{ name: "t", columns: scopeColumns(table) }], measures: [], inputs: [] };
    const formulas = [
      "sum(whole)",
      "avg(part)",
      "max(part)",
      "count(distinct whole)",
      "median(whole)",
      "count(part) filter (where whole > 100)",
    ];
    const queries = [["few"], ["many"], ["many", "few"]].map((splits) =>
      querySchema.parse({
        table: "t",
        measures: formulas.map((formula, i) => ({ formula, as: `m${i}` })),
        splits: splits.map((column) => ({ column })),
        filters: [{ column: "whole", from: -10 }],
      }),
    );
    const answers = () => JSON.stringify(runQueries(queries, { scope, inputs: {}, tables: [table] }));
    const before = scanWith(() => plainLoops);
    const expected = answers();
    expect(expected).toContain("m5");
    try {
      for (const pages of [2, 3, 5, 9, 20, 60, 200, 1024]) {
        scanWith(compiledLoops(module, pages));
        expect([pages, answers() === expected]).toEqual([pages, true]);
      }
    } finally {
      scanWith(before);
    }
  });
});
