import type { Value } from "../core/base/value";
import { ColumnBuilder, type ColumnType, resting, type Table } from "../core/data/column";
import type { TableInfo } from "../core/project/schema";

/**
 * A table out of values by column: what tests and benchmarks compute on. Dates are given as whole days,
 * timestamps as milliseconds.
 */
export function madeTable(name: string, columns: Record<string, [ColumnType, Value[]]>): Table {
  const made = Object.entries(columns).map(([column, [type, values]]) => {
    const builder = new ColumnBuilder(type, Math.max(1, values.length));
    for (const value of values) builder.add(value);
    return { name: column, data: resting(builder.finish()) };
  });
  return { name, version: "1", rows: Object.values(columns)[0]?.[1].length ?? 0, columns: made };
}

/** The columns of a table as formulas see them. */
export function scopeColumns(table: Table): { name: string; type: ColumnType }[] {
  return table.columns.map((c) => ({ name: c.name, type: c.data.type }));
}

/** A made table as a project knows it: every column shown and read by its own type. */
export function projectTable(table: Table): TableInfo {
  return {
    id: table.name,
    name: table.name,
    rows: table.rows,
    columns: scopeColumns(table).map((c) => ({ name: c.name, reading: { type: c.type }, hidden: false })),
    derived: [],
    source: { file: `${table.name}.csv` },
  } as unknown as TableInfo;
}
