import { constants, copyFileSync, cpSync, existsSync } from "node:fs";
import type { StoredTable } from "./import/job";
import { readAbout } from "./store/about-table";
import { sumsOf } from "./store/checksums";
import { tableFiles } from "./store/table-files";

/**
 * Copies the files of a stored table as table `id`, the typed columns with them. Throws where they cannot be
 * copied; what was copied until then is left to the caller to remove.
 */
export function copyTable(table: Omit<StoredTable, "sums">, id: string): StoredTable {
  const [old, fresh] = [tableFiles(table.id), tableFiles(id)];
  copyFileSync(old.rows, fresh.rows, constants.COPYFILE_FICLONE);
  const hasSource = existsSync(old.source);
  if (hasSource) copyFileSync(old.source, fresh.source, constants.COPYFILE_FICLONE);
  // A column that is being written just now is made anew from the rows.
  const whole = (file: string) => !file.endsWith(".part");
  if (existsSync(old.columns)) cpSync(old.columns, fresh.columns, { recursive: true, filter: whole });
  // What was written once is what the copy is held to: a copy of damage stays damage.
  const sums = readAbout(old.about)?.sums ?? {
    rows: sumsOf(fresh.rows),
    source: hasSource ? sumsOf(fresh.source) : null,
  };
  return { id, name: table.name, rows: table.rows, columns: table.columns, sums };
}
