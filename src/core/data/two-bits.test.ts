import fc from "fast-check";
import { expect, it } from "vitest";
import { madeTable } from "../../testing/made-table";
import { cellsOf, cellValue, resting, tableBytes } from "./column";
import { inArray, restingAt, runOf } from "./stored";
import { toTwoBits, writeTwoBits } from "./two-bits";

const cells = fc
  .array(fc.constantFrom(0, 1, -128), { maxLength: 60, size: "max" })
  .map((all) => Int8Array.from(all));

it("true, false and null come back from two bits, whichever rows are read and wherever they are written", () => {
  let aligned = 0;
  fc.assert(
    fc.property(cells, fc.nat(60), fc.nat(60), fc.nat(5), (all, a, b, offset) => {
      const packed = toTwoBits(all);
      expect(packed.bits.length).toBe(Math.ceil(all.length / 4));
      const [from, to] = [a, b].map((x) => Math.min(x, all.length)).sort((x, y) => x - y);
      const room = new Int8Array(80).fill(7);
      const out = room.subarray(offset);
      writeTwoBits(packed, from, to - from, out);
      if (from % 4 === 0 && offset % 4 === 0 && to - from > 4) aligned++;
      const expected = new Int8Array(80).fill(7);
      expected.set(all.subarray(from, to), offset);
      expect(room).toEqual(expected);
      expect(runOf(packed, from, to - from)).toEqual(all.slice(from, to));
      expect(inArray(packed)).toEqual(all);
      expect(Array.from(all, (_, row) => restingAt(packed, row))).toEqual([...all]);
    }),
    { numRuns: 1000, seed: 4 },
  );
  // The way of four at a time was taken too.
  expect(aligned).toBeGreaterThan(20);
});

it("a column of true and false rests in two bits a row, and is not packed twice", () => {
  const values = Array.from({ length: 1001 }, (_, row) => [true, false, null][row % 3]);
  const table = madeTable("rows", { punctual: ["boolean", values] });
  const { data } = table.columns[0];
  expect(tableBytes(table)).toBe(251);
  expect(values.map((_, row) => cellValue(data, row))).toEqual(values);
  expect(cellsOf(data)).toHaveLength(1001);
  expect(resting(data)).toBe(data);
});
