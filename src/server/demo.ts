import { nanoid } from "nanoid";
import { demoProject } from "@/demo/project";
import { copyTable } from "./copy-table";
import type { StoredTable } from "./import/job";
import { runJob } from "./import/run-job";
import { damageOf } from "./store/checksums";
import { database } from "./store/database";
import { createProject, type ProjectSummary, registerTable } from "./store/projects";
import { describeTable } from "./store/record-table";
import { removeTableFiles, tableFiles } from "./store/table-files";

/**
 * Registers stored tables and their project together, so that a stopped process leaves neither. Where that
 * fails, the tables are removed.
 */
export function createWithTables(
  document: Parameters<typeof createProject>[0],
  tables: StoredTable[],
): ProjectSummary {
  const id = nanoid(12);
  try {
    for (const table of tables) describeTable({ id, name: document.name }, table, table.sums);
    return database()
      .transaction(() => {
        const project = createProject(document, id);
        for (const t of tables)
          registerTable(project.id, { id: t.id, rows: t.rows, columns: t.columns.length });
        return project;
      })
      .immediate();
  } catch (error) {
    for (const table of tables) removeTableFiles(table.id);
    throw error;
  }
}

/** The tables of the demo as this process made them last. */
let made: StoredTable[] = [];

/** Copies of stored tables; null, with nothing left behind, where any is gone or not as it was written. */
function soundCopies(tables: StoredTable[]): StoredTable[] | null {
  const ids = tables.map(() => nanoid(16));
  try {
    const copies = tables.map((table, i) => ({ ...copyTable(table, ids[i]), sums: table.sums }));
    if (copies.length > 0 && copies.every((c) => damageOf(tableFiles(c.id).rows, c.sums.rows) === null))
      return copies;
  } catch {
    // They are made anew then.
  }
  for (const id of ids) removeTableFiles(id);
  return null;
}

/** Makes the demo project anew, with its tables: the same rows each time, so that they are made only once. */
export async function createDemo(progress: (share: number) => void = () => {}): Promise<ProjectSummary> {
  const tables = soundCopies(made) ?? (await runJob<StoredTable[]>({ type: "demo" }, { progress }));
  made = tables;
  const infos = tables.map(({ id, name, rows, columns }) => ({
    id,
    name,
    rows,
    columns,
    source: { file: `${name} (demo)`, separator: ",", encoding: "utf-8", header: true },
  }));
  return createWithTables(demoProject(infos), tables);
}
