import { sameName } from "../base/names";
import type { Reading } from "../data/reading-schema";
import type { TableInfo } from "./schema";

/**
 * How the cells of a column read that are written out as Cavlo shows them: of the same type, with a decimal
 * point, the year first.
 */
export const writtenReading = ({ type }: Reading): Reading => {
  if (type === "number") return { type, decimal: "." };
  return type === "date" || type === "timestamp" ? { type, dateOrder: "ymd" } : { type };
};

/**
 * Newly typed rows with the types that the table's columns have had so far: a number that is typed wrong
 * stays a misfit of a number, and does not make its column a text.
 */
export function withTypesOf(table: TableInfo, fresh: TableInfo): TableInfo {
  return {
    ...fresh,
    columns: fresh.columns.map((column) => {
      const before = table.columns.find((c) => sameName(c.name, column.name));
      return before ? { ...column, reading: writtenReading(before.reading), hidden: before.hidden } : column;
    }),
  };
}
