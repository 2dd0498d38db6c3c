import { sameName } from "@/core/base/names";
import { toBytes } from "@/core/data/plain-bytes";
import type { TableSources } from "@/core/engine/table-source";
import type { TravellingTable } from "@/core/snapshot/snapshot";
import type { ComputeRequest } from "./protocol";

/** Some columns of tables with all their rows, as bytes that a page can read back. */
export function travellingBytes(
  { tables, columns }: Extract<ComputeRequest, { type: "columns" }>,
  sources: TableSources,
): Uint8Array {
  const travelling = tables.flatMap(({ name, rows }): TravellingTable[] => {
    const own = columns.filter((c) => sameName(c.table, name));
    if (own.length === 0) return [];
    const source = sources.of(name);
    return [
      {
        name,
        rows,
        columns: own.map(({ column }) => {
          sources.checkStop();
          return { name: column, data: source.column(name, column).data };
        }),
      },
    ];
  });
  return toBytes(travelling);
}
