import type { TableInfo } from "@/core/project/schema";
import type { TableProfile } from "@/server/compute/protocol";

/** A column as the rows show it. */
export interface ShownColumn {
  name: string;
  type: string;
  derived: boolean;
}

/** The columns that are not hidden, the derived ones last. */
export function shownColumns(table: TableInfo, profile: TableProfile | null): ShownColumn[] {
  const typeOf = (name: string) => profile?.columns.find((c) => c.name === name)?.type ?? "…";
  return [
    ...table.columns
      .filter((c) => !c.hidden)
      .map((c) => ({ name: c.name, type: c.reading.type, derived: false })),
    ...table.derived
      .filter((c) => !c.hidden)
      .map((c) => ({ name: c.name, type: typeOf(c.name), derived: true })),
  ];
}
