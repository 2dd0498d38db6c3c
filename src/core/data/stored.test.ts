import fc from "fast-check";
import { expect, it } from "vitest";
import { madeTable, scopeColumns } from "../../testing/made-table";
import { runQueries } from "../engine/run";
import { querySchema, type Result } from "../plan/query";
import { cellValue } from "./column";
import { isNone, packCodes, packNumbers } from "./stored";

const decimal = fc
  .tuple(fc.integer({ min: -(2 ** 33), max: 2 ** 33 }), fc.constantFrom(1, 10, 100, 1000, 10_000, 100_000))
  .map(([n, scale]) => n / scale);
const cell = fc.oneof(
  fc.integer({ min: -200, max: 200 }),
  fc.integer({ min: -40_000, max: 40_000 }),
  fc.constantFrom(
    2 ** 31 - 1,
    2 ** 31,
    -(2 ** 31),
    -(2 ** 31) + 1,
    127,
    -127,
    -128,
    32_767,
    -32_768,
    0.1 + 0.2,
  ),
  decimal,
  fc.double({ noNaN: true, noDefaultInfinity: true }),
  fc.constant(Number.NaN),
);

it("numbers come back as the very doubles that they were, nulls as nulls", () => {
  const widths = new Set<string>();
  fc.assert(
    fc.property(
      fc.oneof(fc.array(cell), fc.array(decimal), fc.array(fc.integer({ min: -130, max: 130 }))),
      (numbers) => {
        const { values, none, scale } = packNumbers(Float64Array.from(numbers));
        widths.add(`${values.constructor.name} ${scale}`);
        const back = Array.from(values, (x) => (isNone(x, none) ? Number.NaN : x / scale));
        expect(back.map((x) => x + 0)).toEqual(numbers.map((x) => x + 0));
      },
    ),
    { numRuns: 2000, seed: 8 },
  );
  // Each width was met, and decimals in some of them.
  for (const width of ["Int8Array 1", "Int16Array 1", "Int32Array 1", "Float64Array 1", "Int32Array 100"])
    expect([...widths]).toContain(width);
});

it("columns are as narrow as their values", () => {
  const bytes = (...numbers: number[]) => packNumbers(Float64Array.from(numbers)).values.BYTES_PER_ELEMENT;
  expect([bytes(1, -127), bytes(128), bytes(12.34, Number.NaN), bytes(400.5, 1e5), bytes(2 ** 31)]).toEqual([
    1, 2, 2, 4, 8,
  ]);
  expect(bytes(1 / 3)).toBe(8);
  expect(packCodes(Int32Array.of(0, -1, 126), 127)).toEqual(Int8Array.of(0, -1, 126));
  expect(packCodes(Int32Array.of(0, 40_000), 40_001)).toEqual(Int32Array.of(0, 40_000));
});

it("a range of decimals keeps what lies within its ends, and sums of them lose no digit", () => {
  const cents = fc.integer({ min: -50_000, max: 50_000 });
  fc.assert(
    fc.property(fc.array(cents, { maxLength: 40 }), cents, cents, (all, a, b) => {
      const fares = all.map((n) => n / 100);
      const [from, to] = [Math.min(a, b) / 100, Math.max(a, b) / 100];
      const table = madeTable("rows", { fare: ["number", fares] });
      expect(fares.map((_, i) => cellValue(table.columns[0].data, i))).toEqual(fares.map((x) => x + 0));
      const [result] = runQueries(
        [
          querySchema.parse({
            table: "rows",
            measures: [
              { formula: "count(*)", as: "n" },
              { formula: "sum(fare)", as: "s" },
            ],
            filters: [{ column: "fare", from, to }],
          }),
        ],
        {
          tables: [table],
          inputs: {},
          scope: { tables: [{ name: "rows", columns: scopeColumns(table) }], measures: [], inputs: [] },
        },
      ) as Result[];
      const kept = all.filter((n) => n / 100 >= from && n / 100 <= to);
      expect(result.columns.map((c) => c.values[0])).toEqual([
        kept.length,
        kept.length ? kept.reduce((sum, n) => sum + n, 0) / 100 + 0 : null,
      ]);
    }),
    { numRuns: 500, seed: 9 },
  );
});
