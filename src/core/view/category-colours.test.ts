import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { madeTable, scopeColumns } from "../../testing/made-table";
import type { Value } from "../base/value";
import type { Table } from "../data/column";
import { runQueries } from "../engine/run";
import { querySchema, type Result } from "../plan/query";
import { QueryError } from "../plan/query-error";
import { newVisual } from "../project/defaults";
import { edited } from "../project/edits";
import { scopeOf } from "../project/names";
import { emptyProject, measureSchema, type Project, tableSchema, type Visual } from "../project/schema";
import { categoryColoursOf } from "./category-colours";
import { toQuery } from "./query";
import { toVisualData } from "./visual-data";

const SIZES = ["L", "M", "S", null, "XL", "M", "S", "L", "XL", "M"];
const orders = madeTable("orders", {
  size: ["text", SIZES],
  on: ["date", SIZES.map((_, i) => 19_800 + 100 * i)],
  n: ["number", [5, 1, 9, 2, 7, 3, 8, 4, 6, 10]],
  hasGift: ["boolean", SIZES.map((_, i) => (i === 4 ? null : i % 2 === 0))],
});
const sizes = madeTable("sizes", {
  size: ["text", ["XL", "S", "M", "L", "XXL"]],
  rank: ["number", [4, 1, 2, 3, 5]],
});

const info = (table: Table) =>
  tableSchema.parse({
    id: table.name,
    name: table.name,
    rows: table.rows,
    columns: scopeColumns(table).map((c) => ({ name: c.name, reading: { type: c.type } })),
    source: { file: "" },
  });
const project: Project = {
  ...emptyProject("p"),
  tables: [info(orders), info(sizes)],
  links: [{ id: "l", table: "orders", column: "size", to: "sizes", key: "size" }],
  measures: ["sum", "avg"].map((formula) =>
    measureSchema.parse({
      id: formula,
      name: `${formula}_n`,
      label: formula,
      table: "orders",
      formula: `${formula}(n)`,
      format: {},
    }),
  ),
};
const bySize = (change: Partial<Visual> = {}) =>
  newVisual({ id: "v", name: "v", kind: "donut", value: "sum", split: { column: "size" }, ...change });

/** What a visual of the project draws, and the answer behind it. */
function drawn(visual: Visual, from: Project = project, today = "2026-11-26") {
  const [result] = runQueries([querySchema.parse(toQuery(visual, from))], {
    scope: scopeOf(from),
    inputs: {},
    tables: [orders, sizes],
    today,
  });
  if (result instanceof QueryError) throw result;
  return { result: result as Result, data: toVisualData(visual, from, result) };
}
const colours = (visual: Visual, from: Project = project) =>
  new Map(categoryColoursOf(visual, drawn(visual, from).data, from).map((c) => [c.label, c.color]));
const labels = (visual: Visual, from: Project = project) => drawn(visual, from).data.rows.map((r) => r.label);

describe("the colour of a category", () => {
  const all = colours(bySize());

  it("stays over filters, orders and the first n, for categories of every type", () => {
    const values = (column: string): Value[] =>
      column === "size" ? ["L", "M", "S", "XL", null] : [true, false, null];
    fc.assert(
      fc.property(
        fc.constantFrom("size", "hasGift").chain((column) =>
          fc.record({
            column: fc.constant(column),
            kept: fc.subarray(values(column), { minLength: 1 }),
            by: fc.constantFrom("value" as const, "split" as const, { measure: "avg" }, { column: "on" }),
            order: fc.constantFrom("asc" as const, "desc" as const),
            first: fc.integer({ min: 1, max: 5 }),
          }),
        ),
        ({ column, kept, by, order, first }) => {
          const plain = bySize({ split: { column } });
          const changed = bySize({
            split: { column },
            filters: [{ column, in: kept }],
            order: { by, order },
            keep: { first, others: true },
          });
          const whole = colours(plain);
          const some = colours(changed);
          expect(some.size).toBeGreaterThan(0);
          for (const [label, color] of some) expect(color, label).toBe(whole.get(label));
        },
      ),
    );
  });

  it("is another for each category, and the same through a link and in the linked table itself", () => {
    expect(new Set(all.values()).size).toBe(all.size);
    const through = colours(bySize({ split: { column: "sizes.size" } }));
    for (const label of ["S", "M", "L", "XL"]) expect(through.get(label)).toBe(all.get(label));
  });

  it("is what the project says, in every visual, also through a link; a visual's own goes before it", () => {
    const item = {
      id: "c",
      table: "sizes",
      column: "size",
      order: [],
      colours: [
        { value: "M", color: "#123456" },
        { value: null, color: "#654321" },
      ],
    };
    const said = edited(project, { type: "put item", list: "categories", item });
    expect(colours(bySize(), said).get("M")).toBe("#123456");
    expect(colours(bySize(), said).get("(none)")).toBe("#654321");
    expect(colours(bySize({ split: { column: "sizes.size" } }), said).get("M")).toBe("#123456");
    const own = bySize({ categoryColours: { M: "#abcdef" } });
    expect(colours(own, said).get("M")).toBe("#abcdef");
  });

  it("follows a table and a column that get other names", () => {
    const item = { id: "c", table: "sizes", column: "size", order: ["S", "M"], colours: [] };
    const said = edited(project, { type: "put item", list: "categories", item });
    const renamed = [
      { type: "rename table", id: "sizes", name: "measures" } as const,
      { type: "change column", table: "sizes", column: "size", change: { name: "code" } } as const,
      { type: "change column", table: "orders", column: "on", change: { name: "day" } } as const,
    ].reduce(edited, {
      ...said,
      visuals: [
        bySize({
          order: { by: { column: "on" }, order: "asc" },
          title: "{value} by {sizes.size}",
          split: { column: "sizes.size" },
        }),
      ],
    });
    expect(renamed.categories).toEqual([{ ...item, table: "measures", column: "code" }]);
    expect(renamed.visuals[0]).toMatchObject({
      order: { by: { column: "day" } },
      split: { column: "measures.code" },
      title: "{value} by {measures.code}",
    });
  });

  it("goes by time for dates, whatever year a filter begins with", () => {
    const byQuarter = {
      split: { column: "on", by: "quarter" as const },
      order: { by: "split" as const, order: "asc" as const },
    };
    const whole = drawn(bySize(byQuarter));
    const late = drawn(bySize({ ...byQuarter, filters: [{ column: "on", from: "2025-06-01" }] }));
    expect(late.result.rows).toBeLessThan(whole.result.rows);
    for (const row of late.data.rows)
      expect(whole.data.rows.find((r) => r.key === row.key)?.place).toBe(row.place);
  });
});

describe("the order of categories", () => {
  const order = (by: Visual["order"]["by"], direction: "asc" | "desc" = "asc") =>
    labels(bySize({ order: { by, order: direction } }));

  it("is by another measure, by another column, or by the value", () => {
    expect(order("value", "desc")).toEqual(["S", "M", "XL", "L", "(none)"]);
    // Averages: S 8.5, XL 6.5, M 4.67, L 4.5, none 2.
    expect(order({ measure: "avg" }, "desc")).toEqual(["S", "XL", "M", "L", "(none)"]);
    // First days: L, M, S, none, XL.
    expect(order({ column: "on" })).toEqual(["L", "M", "S", "(none)", "XL"]);
    // Ranks of the linked table; none has no rank.
    expect(order({ column: "sizes.rank" })).toEqual(["S", "M", "L", "XL", "(none)"]);
    expect(order({ column: "sizes.rank" }, "desc")).toEqual(["XL", "L", "M", "S", "(none)"]);
  });

  it("is by hand where the project says so, what is not named after it, and the first n go by it", () => {
    const item = { id: "c", table: "sizes", column: "size", order: ["XL", "S"], colours: [] };
    const said = edited(project, { type: "put item", list: "categories", item });
    const own = bySize({ order: { by: "split", order: "asc" } });
    expect(labels(own, said)).toEqual(["XL", "S", "L", "M", "(none)"]);
    expect(labels({ ...own, keep: { first: 2, others: true } }, said)).toEqual(["XL", "S", "Other"]);
    const series = bySize({
      kind: "capsule stack",
      split: { column: "hasGift" },
      series: { column: "size" },
      seriesOrder: { by: "split", order: "asc" },
    });
    expect(drawn(series, said).data.series.map((s) => s.label)).toEqual(["XL", "S", "L", "M", "(none)"]);
  });

  it("is that of the values where a column is none any more", () => {
    expect(order({ column: "nothing" })).toEqual(order("value"));
  });
});
