import { statSync } from "node:fs";
import type Database from "better-sqlite3";
import { QueryError } from "@/core/plan/query-error";
import { readAbout } from "./about-table";
import { damageOf } from "./checksums";
import { openRows, tableFiles } from "./table-files";

/**
 * Files whose bytes were found to be what was written, by what would change with them. Rows of a table are
 * written once.
 */
const sound = new Set<string>();

/**
 * Holds the stored rows of a table to their checksums, once in a thread. Throws a QueryError that says which
 * table is damaged and what can be done.
 */
export function holdRows({ id, name }: { id: string; name: string }): void {
  const files = tableFiles(id);
  const damaged = (problem: string) =>
    new QueryError(
      "damaged",
      `The rows of the table ${name} are damaged on the disk: ${problem}. Choose “Read the file again” on the Data step, or restore a backup.`,
    );
  const stat = statSync(files.rows, { throwIfNoEntry: false });
  if (!stat) throw damaged("the file is gone");
  const key = `${files.rows} ${stat.ino} ${stat.size} ${stat.mtimeMs}`;
  if (sound.has(key)) return;
  const about = readAbout(files.about);
  const problem = about ? damageOf(files.rows, about.sums.rows) : null;
  if (problem) throw damaged(problem);
  if (sound.size > 2000) sound.clear();
  sound.add(key);
}

/** Opens the stored rows of a table, held to their checksums. Throws as `holdRows` does. */
export function openSoundRows(table: { id: string; name: string }): Database.Database {
  holdRows(table);
  return openRows(table.id);
}
