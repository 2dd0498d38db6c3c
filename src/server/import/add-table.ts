import { edited } from "@/core/project/edits";
import { HttpError } from "../http/errors";
import { readProject, saveProject } from "../store/projects";
import type { ImportedTable } from "./import-table";

/** The most tables of a project. */
const MOST_TABLES = 200;
/** So often a save that another came before is tried again. */
const TRIES = 20;

/** Throws a 409 HttpError where a project can take no table more. */
export function needRoom(projectId: string): void {
  if (readProject(projectId).document.tables.length >= MOST_TABLES)
    throw new HttpError(
      409,
      "too_many_tables",
      `A project has at most ${MOST_TABLES} tables. Remove one, or bring the file into another project.`,
    );
}

/**
 * Adds a table that was brought in to the document of its project, under a name that is free there, and saves
 * it; gives the table as it stands there, and the new revision. Throws a 409 HttpError where others go on
 * saving meanwhile: the rows are kept, as a table that no project names.
 */
export function addTable(projectId: string, imported: ImportedTable): ImportedTable & { revision: number } {
  for (let i = 0; i < TRIES; i++) {
    const { document, revision } = readProject(projectId);
    const next = edited(document, { type: "add table", table: imported.table });
    const outcome = saveProject(projectId, revision, next);
    const table = next.tables.find((t) => t.id === imported.table.id);
    if ("saved" in outcome && table) return { ...imported, table, revision: outcome.saved.revision };
  }
  throw new HttpError(
    409,
    "newer",
    "The project is being changed by others. The rows are stored; bring the file in again.",
  );
}
