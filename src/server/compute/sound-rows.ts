import { statSync } from "node:fs";
import type Database from "better-sqlite3";
import { QueryError } from "@/core/engine/query";
import { readAbout } from "../store/about-table";
import { damageOf } from "../store/checksums";
import { openRows, tableFiles } from "../store/table-files";

/** Files whose bytes were found to be what was written, by what would change with them. Rows of a table are written once. */
const sound = new Set<string>();

/** Opens the stored rows of a table, after their checksums were held once. Throws a QueryError that says which table is damaged and what can be done. */
export function openSoundRows({ id, name }: { id: string; name: string }): Database.Database {
  const files = tableFiles(id);
  const damaged = (problem: string) =>
    new QueryError("damaged", `The rows of the table ${name} are damaged on the disk: ${problem}. Choose “Read the file again” on the Data step, or restore a backup.`);
  const stat = statSync(files.rows, { throwIfNoEntry: false });
  if (!stat) throw damaged("the file is gone");
  const key = `${files.rows} ${stat.ino} ${stat.size} ${stat.mtimeMs}`;
  if (!sound.has(key)) {
    const about = readAbout(files.about);
    const problem = about ? damageOf(files.rows, about.sums.rows) : null;
    if (problem) throw damaged(problem);
    if (sound.size > 2000) sound.clear();
    sound.add(key);
  }
  return openRows(id);
}
