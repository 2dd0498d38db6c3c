import { existsSync } from "node:fs";
import { runJob } from "../import/run-job";
import type { FileSums } from "../store/checksums";
import { database } from "../store/database";
import { readProject } from "../store/projects";
import { describeTable } from "../store/record-table";
import { tableFiles } from "../store/table-files";

/**
 * Writes, one table after the other, what is to be known of tables that an earlier version stored. What they
 * hold now is what they are held to.
 */
export async function describeOldTables(): Promise<void> {
  const tables = database()
    .prepare<[], { id: string; project_id: string }>("select id, project_id from stored_tables")
    .all();
  for (const { id, project_id } of tables) {
    const files = tableFiles(id);
    if (existsSync(files.about) || !existsSync(files.rows)) continue;
    try {
      const { name, document } = readProject(project_id);
      const table = document.tables.find((t) => t.id === id);
      if (!table) continue;
      const sums = await runJob<{ rows: FileSums; source: FileSums | null }>(
        { type: "sums", id },
        { progress: () => {} },
      );
      describeTable({ id: project_id, name }, table, sums);
    } catch (error) {
      console.warn(`The table ${id} could not be described: ${(error as Error).message}`);
    }
  }
}
