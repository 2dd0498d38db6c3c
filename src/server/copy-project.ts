import { copyFileSync, existsSync } from "node:fs";
import { nanoid } from "nanoid";
import type { Project } from "@/core/project/schema";
import { createWithTables } from "./demo";
import { checkTables } from "./results";
import type { ProjectSummary } from "./store/projects";
import { tableFiles } from "./store/table-files";

/** Makes a new project out of a document of project `from`, with copies of its tables' rows. */
export function copyProject(from: string, document: Project): ProjectSummary {
  checkTables(from, document.tables);
  const tables = document.tables.map((table) => {
    const id = nanoid(16);
    const [old, fresh] = [tableFiles(table.id), tableFiles(id)];
    copyFileSync(old.rows, fresh.rows);
    if (existsSync(old.source)) copyFileSync(old.source, fresh.source);
    return { ...table, id };
  });
  return createWithTables({ ...document, tables }, tables);
}
