import { sameName } from "@/core/base/names";
import { toBytes } from "@/core/data/plain-bytes";
import { inArray } from "@/core/data/stored";
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
          const { data } = source.column(name, column);
          // In arrays, as every version of the elements reads them; packed, they take no more.
          const inArrays = data.type === "text" ? data : { ...data, values: inArray(data.values) };
          return { name: column, data: inArrays };
        }),
      },
    ];
  });
  return toBytes(travelling);
}
