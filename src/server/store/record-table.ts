import type { Reading } from "@/core/data/reading-schema";
import { writeAbout } from "./about-table";
import type { FileSums } from "./checksums";
import { database } from "./database";
import { registerTable } from "./projects";

interface NewTable {
  id: string;
  name: string;
  rows: number;
  columns: { name: string; reading: Reading }[];
}

/** Writes what is to be known of a table of a project beside its rows. */
export function describeTable(
  project: { id: string; name: string },
  { id, name, rows, columns }: NewTable,
  sums: { rows: FileSums; source: FileSums | null },
): void {
  const createdAt = new Date().toISOString();
  writeAbout({
    id,
    name,
    project,
    rows,
    columns: columns.map((c) => ({ name: c.name, reading: c.reading })),
    createdAt,
    sums,
  });
}

/** Describes a new table and then registers it for its project: from then on it is the project's. */
export function recordTable(
  projectId: string,
  table: NewTable,
  sums: { rows: FileSums; source: FileSums | null },
): void {
  const name =
    database().prepare<[string], string>("select name from projects where id = ?").pluck().get(projectId) ??
    "";
  describeTable({ id: projectId, name }, table, sums);
  registerTable(projectId, { id: table.id, rows: table.rows, columns: table.columns.length });
}
