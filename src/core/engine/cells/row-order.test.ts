import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { madeTable } from "../../../testing/made-table";
import type { Value } from "../../base/value";
import { type CellData, type ColumnType, cellValue } from "../../data/column";
import { columnRange } from "../../data/column-range";
import { sourcesOf } from "../run";
import { binColumn, binsOf, OrderedRows, orderedBins, rowOrder } from "./row-order";

const boss = { checkStop: () => {} };
const column = (type: ColumnType, values: Value[]) => madeTable("t", { c: [type, values] }).columns[0].data;
const orderOf = (data: ReturnType<typeof column>) =>
  rowOrder(data, boss) as NonNullable<ReturnType<typeof rowOrder>>;

const cells = fc.array(fc.option(fc.integer({ min: -300, max: 40_000 }), { freq: 8 }), {
  minLength: 1,
  maxLength: 400,
});
const someNumber = (values: Value[]) => values.some((v) => v !== null);

describe("the order of rows by a column", () => {
  it("has every row in one place, by its value, null last, and equal ones as they stood", () => {
    fc.assert(
      fc.property(cells.filter(someNumber), (values) => {
        const data = column("number", values);
        const { values: distinct, starts, to, places } = orderOf(data);
        const sorted = values
          .map((v, row) => ({ v: v === null ? Number.POSITIVE_INFINITY : v, row }))
          .sort((a, b) => a.v - b.v || a.row - b.row);
        expect(sorted.map(({ row }) => to[row])).toEqual(sorted.map((_, place) => place));
        const known = [...new Set(sorted.map(({ v }) => v))];
        expect(known.map((_, i) => cellValue(distinct, i))).toEqual(
          known.map((v) => (v === Number.POSITIVE_INFINITY ? null : v)),
        );
        expect([...starts]).toEqual([...known.map((v) => sorted.findIndex((s) => s.v === v)), values.length]);
        for (const { v, row } of sorted) expect(known[places[row]]).toBe(v);
      }),
      { numRuns: 200 },
    );
  });

  it("is none of texts, of nothing, and of values that are not whole or lie too far apart", () => {
    expect(rowOrder(column("text", ["a"]), boss)).toBeNull();
    expect(rowOrder(column("number", [null]), boss)).toBeNull();
    expect(rowOrder(column("number", [0.123456789]), boss)).toBeNull();
    expect(rowOrder(column("number", [0, 1e9]), boss)).toBeNull();
    expect(rowOrder(column("number", [0, 1e6]), boss)).not.toBeNull();
  });

  it("ends where the work is to end", () => {
    const stopped = () => {
      throw new Error("stopped");
    };
    expect(() => rowOrder(column("number", [1, 2]), { checkStop: stopped })).toThrow("stopped");
  });
});

describe("bins of an order", () => {
  it("are stretches of its values, each with about as many rows, and the same for rows in either order", () => {
    fc.assert(
      fc.property(cells.filter(someNumber), fc.integer({ min: 1, max: 60 }), (values, most) => {
        const data = column("number", values);
        const order = orderOf(data);
        const bins = binsOf(order, most);
        const count = order.starts.length - 1;
        expect(bins.length - 1).toBeLessThanOrEqual(Math.max(most, 1));
        expect([bins[0], bins.at(-1)]).toEqual([0, count]);
        for (let b = 1; b < bins.length; b++) expect(bins[b]).toBeGreaterThan(bins[b - 1]);
        if (count <= most) expect(bins.length - 1).toBe(count);
        // A bin ends as soon as it has its share, so it has too many by the rows of one value at most.
        const rowsOf = (from: number, to: number) => order.starts[to] - order.starts[from];
        const largest = Math.max(...Array.from({ length: count }, (_, v) => rowsOf(v, v + 1)));
        for (let b = 0; b + 1 < bins.length; b++)
          expect(rowsOf(bins[b], bins[b + 1])).toBeLessThanOrEqual(values.length / most + largest);
        const standing = binColumn(order, bins);
        const ordered = orderedBins(order, bins);
        for (let row = 0; row < values.length; row++) {
          const bin = standing.values[row];
          expect(ordered.values[order.to[row]]).toBe(bin);
          expect(order.places[row] >= bins[bin] && order.places[row] < bins[bin + 1]).toBe(true);
        }
        // What is said of them without looking is what looking says.
        for (const of of [standing, ordered]) {
          const { full, exact, within } = columnRange(of);
          const looked = columnRange({ ...of });
          expect([full, exact, within?.low]).toEqual([looked.full, looked.exact, looked.within?.low]);
          expect(within?.span).toBe(looked.within?.span);
        }
      }),
      { numRuns: 200 },
    );
  });
});

describe("rows in another order", () => {
  it("have the cells of every column that is taken, and know their range", () => {
    const text = fc.option(fc.constantFrom("a", "b", "constructor", ""), { freq: 5 });
    const row = fc.record({ by: fc.option(fc.nat(30), { freq: 8 }), name: text, n: fc.option(fc.integer()) });
    fc.assert(
      fc.property(fc.array(row, { minLength: 1, maxLength: 200 }), (rows) => {
        if (rows.every((r) => r.by === null)) return;
        const table = madeTable("rows", {
          by: ["number", rows.map((r) => r.by)],
          name: ["text", rows.map((r) => r.name)],
          n: ["number", rows.map((r) => r.n)],
        });
        const scope = { tables: [{ name: "rows", columns: [] }], measures: [], inputs: [] };
        const source = sourcesOf({ tables: [table], inputs: {}, scope }).of("rows");
        const order = orderOf(table.columns[0].data);
        const made = new OrderedRows({ name: "rows", rows: rows.length }, undefined, new Map());
        for (const name of ["by", "name", "n"]) made.take({ table: "rows", column: name }, source, order);
        for (const [key, from] of table.columns.entries()) {
          const { data } = made.column("ROWS", from.name);
          for (let i = 0; i < rows.length; i++)
            expect(cellValue(data, order.to[i])).toBe(cellValue(from.data, i));
          if (key !== 1) expect(columnRange(data)).toEqual(columnRange({ ...(data as CellData) }));
        }
        expect(() => made.column("rows", "other")).toThrow("rows.other");
      }),
      { numRuns: 100 },
    );
  });
});
