import { nanoid } from "nanoid";
import type { Project } from "@/core/project/schema";
import { copyTable } from "./copy-table";
import { createWithTables } from "./demo";
import { checkTables } from "./results";
import type { ProjectSummary } from "./store/projects";
import { removeTableFiles } from "./store/table-files";

/**
 * Makes a new project out of a document of project `from`, with copies of its tables' rows. Leaves nothing
 * behind where that fails.
 */
export function copyProject(from: string, document: Project): ProjectSummary {
  checkTables(from, document.tables);
  const ids = document.tables.map(() => nanoid(16));
  try {
    const copies = document.tables.map((table, i) => copyTable(table, ids[i]));
    return createWithTables(
      { ...document, tables: document.tables.map((table, i) => ({ ...table, id: ids[i] })) },
      copies,
    );
  } catch (error) {
    for (const id of ids) removeTableFiles(id);
    throw error;
  }
}
