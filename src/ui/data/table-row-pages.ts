"use client";
import { keepPreviousData, useQueries } from "@tanstack/react-query";
import type { Filter } from "@/core/plan/query";
import type { TableInfo } from "@/core/project/schema";
import { api } from "../shared/api";
import { useProjectStore } from "../shared/project-context";
import { useTableVersion } from "../shared/table-version";

/** What rows are sorted by. */
export interface RowOrder {
  column: string;
  order: "asc" | "desc";
}

/** What of a table's rows is looked at. */
export interface RowWish {
  order: RowOrder | null;
  find: string;
  filters: Filter[];
}

/** So many cells come in one answer at most; of a narrow table 100 rows. */
const CELLS = 30_000;

/** How many rows a page of this table has. */
export const pageOf = (columns: number): number => Math.max(10, Math.min(100, Math.floor(CELLS / columns)));

/** Pages of a table's rows, each as soon as it is there. A page that nobody looks at any more is given up. */
export function useRowPages(table: TableInfo, page: number, wanted: number[], wish: RowWish) {
  const store = useProjectStore();
  const version = useTableVersion(table);
  const { order, find, filters } = wish;
  return useQueries({
    queries: wanted.map((number) => ({
      queryKey: ["rows", version, page, number, order, find, filters],
      queryFn: async ({ signal }: { signal: AbortSignal }) => {
        // The server reads the columns as the saved document says.
        await store.getState().flush();
        return api.rows(
          store.getState().id,
          table.name,
          {
            offset: number * page,
            limit: page,
            find,
            filters: JSON.stringify(filters),
            ...(order ? { sort: order.column, order: order.order } : {}),
          },
          signal,
        );
      },
      placeholderData: keepPreviousData,
      staleTime: Number.POSITIVE_INFINITY,
    })),
  });
}
