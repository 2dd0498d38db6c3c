import { nanoid } from "nanoid";
import { demoProject } from "@/demo/project";
import type { StoredTable } from "./import/job";
import { runJob } from "./import/run-job";
import { database } from "./store/database";
import { createProject, type ProjectSummary, registerTable } from "./store/projects";
import { describeTable } from "./store/record-table";

/** Registers stored tables and their project together, so that a stopped process leaves neither. */
export function createWithTables(
  document: Parameters<typeof createProject>[0],
  tables: StoredTable[],
): ProjectSummary {
  const id = nanoid(12);
  for (const table of tables) describeTable({ id, name: document.name }, table, table.sums);
  return database()
    .transaction(() => {
      const project = createProject(document, id);
      for (const t of tables)
        registerTable(project.id, { id: t.id, rows: t.rows, columns: t.columns.length });
      return project;
    })
    .immediate();
}

/** Makes the demo project anew, with its tables. */
export async function createDemo(progress: (share: number) => void = () => {}): Promise<ProjectSummary> {
  const tables = await runJob<StoredTable[]>({ type: "demo" }, { progress });
  const infos = tables.map(({ id, name, rows, columns }) => ({
    id,
    name,
    rows,
    columns,
    source: { file: `${name} (demo)`, separator: ",", encoding: "utf-8", header: true },
  }));
  return createWithTables(demoProject(infos), tables);
}
