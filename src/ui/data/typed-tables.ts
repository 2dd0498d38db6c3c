"use client";
import type { TypedGrid } from "@/core/data/typed-grid";
import { MOST } from "@/core/project/most";
import { misfitsOf } from "@/core/project/replacement";
import type { TableInfo } from "@/core/project/schema";
import { withTypesOf } from "@/core/project/typed-table";
import { api } from "../shared/api";
import { freeLabel } from "../shared/ids";
import { useProjectStore } from "../shared/project-context";

/** How cells that were typed are written: nothing of it is guessed. */
const AS_WRITTEN = { separator: ",", encoding: "utf-8", header: "true", above: "0" };

/** Reads the cells of a small table, and saves those that were typed. */
export function useTypedTables() {
  const store = useProjectStore();
  const bringIn = (name: string, csv: string) =>
    api.importTable(
      store.getState().id,
      new File([csv], `${name}.csv`, { type: "text/csv" }),
      () => {},
      new AbortController().signal,
      AS_WRITTEN,
    );
  return {
    /** The cells of a table as they stand, without what is derived from them. */
    async read(table: TableInfo): Promise<TypedGrid> {
      await store.getState().flush();
      const { page } = await api.rows(store.getState().id, table.name, { offset: 0, limit: 500 });
      const names = table.columns.map((c) => c.name);
      const places = names.map((name) => page.columns.indexOf(name));
      return { names, rows: page.rows.map((row) => places.map((at) => row.cells[at] ?? "")) };
    },
    /** Makes a table of typed cells; gives its id. */
    async add(csv: string): Promise<string> {
      const { document, apply } = store.getState();
      const most = MOST.project.tables;
      if (document.tables.length >= most)
        throw new Error(`A project has at most ${most} tables. Remove some first.`);
      const names = document.tables.map((t) => t.name);
      const { table } = await bringIn(freeLabel("typed", names), csv);
      if (!apply({ type: "add table", table })) throw new Error("The table was not added.");
      return table.id;
    },
    /** Puts typed cells in the place of a table's rows; gives its new id. Throws where something would break. */
    async replace(table: TableInfo, csv: string): Promise<string> {
      if (!store.getState().document.tables.some((t) => t.id === table.id))
        throw new Error(
          `${table.name} was removed or changed since its cells were opened. Undo that change, or press Do not save.`,
        );
      const fresh = withTypesOf(table, (await bringIn(table.name, csv)).table);
      const { document, apply } = store.getState();
      const gone = misfitsOf(document, table, fresh)[0];
      if (gone)
        throw new Error(
          `Without its column “${gone.column}”, ${gone.uses.slice(0, 3).join(", ")} cannot be computed. Keep the column, or change what uses it first.`,
        );
      apply({ type: "replace rows", id: table.id, fresh });
      return fresh.id;
    },
  };
}
