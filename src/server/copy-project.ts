import { constants, copyFileSync, existsSync } from "node:fs";
import { nanoid } from "nanoid";
import type { Project } from "@/core/project/schema";
import { createWithTables } from "./demo";
import type { StoredTable } from "./import/job";
import { checkTables } from "./results";
import { readAbout } from "./store/about-table";
import { sumsOf } from "./store/checksums";
import type { ProjectSummary } from "./store/projects";
import { removeTableFiles, tableFiles } from "./store/table-files";

function copyTable(table: Project["tables"][number], id: string): StoredTable {
  const [old, fresh] = [tableFiles(table.id), tableFiles(id)];
  copyFileSync(old.rows, fresh.rows, constants.COPYFILE_FICLONE);
  const hasSource = existsSync(old.source);
  if (hasSource) copyFileSync(old.source, fresh.source, constants.COPYFILE_FICLONE);
  // What was written once is what the copy is held to: a copy of damage stays damage.
  const sums = readAbout(old.about)?.sums ?? {
    rows: sumsOf(fresh.rows),
    source: hasSource ? sumsOf(fresh.source) : null,
  };
  return { id, name: table.name, rows: table.rows, columns: table.columns, sums };
}

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
