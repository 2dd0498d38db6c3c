import { existsSync, mkdirSync, readdirSync, renameSync, rmSync } from "node:fs";
import { join } from "node:path";
import type Database from "better-sqlite3";
import { settings } from "../settings";
import { type AboutTable, readAbout } from "./about-table";
import { tablesFolder } from "./table-files";

/**
 * Files of tables: a name of our making, and what the file is. Anything else in the folder is somebody else's
 * and stays untouched.
 */
const OURS =
  /^([A-Za-z0-9_-]{16})\.(sqlite|about\.json|about\.json\.part|source|columns|upload|part\.sqlite)$/;
const UNFINISHED = new Set(["upload", "part.sqlite", "about.json.part"]);

const unclaimedFolder = () => join(settings.data, "unclaimed");

/** The files of tables in a folder, by the table's id. */
function filesByTable(folder: string): Map<string, { file: string; what: string }[]> {
  const found = new Map<string, { file: string; what: string }[]>();
  for (const file of existsSync(folder) ? readdirSync(folder) : []) {
    const m = OURS.exec(file);
    if (m) found.set(m[1], [...(found.get(m[1]) ?? []), { file, what: m[2] }]);
  }
  return found;
}

/**
 * Clears up after a stopped process. What an import left unfinished is removed; whole tables that no project
 * names are moved to `unclaimed/` and never removed. A database that is not `trusted`, because it is new, was
 * migrated or is an older one put back, moves nothing.
 */
export function sweepTables(db: Database.Database, { trusted }: { trusted: boolean }): void {
  const known = new Set(db.prepare<[], string>("select id from stored_tables").pluck().all());
  const lastWrite =
    db
      .prepare<[], string | null>(
        "select max(at) from (select max(saved_at) as at from revisions union all select max(created_at) from stored_tables)",
      )
      .pluck()
      .get() ?? "";
  const unknown = [...filesByTable(tablesFolder())].filter(([id]) => !known.has(id));
  if (!trusted) {
    if (unknown.length > 0)
      console.warn(
        `${unknown.length} tables in ${tablesFolder()} are named by no project of this database. They stay where they are; the list of projects offers to bring them back.`,
      );
    return;
  }
  for (const [id, files] of unknown) {
    const whole = files.some((f) => f.what === "sqlite");
    for (const { file, what } of files)
      if (UNFINISHED.has(what)) rmSync(join(tablesFolder(), file), { force: true });
    if (!whole) continue;
    const about = readAbout(join(tablesFolder(), `${id}.about.json`));
    // A table that is newer than all the database knows may belong to a newer database that is not here.
    if (about && about.createdAt > lastWrite) continue;
    mkdirSync(unclaimedFolder(), { recursive: true });
    for (const { file, what } of files)
      if (!UNFINISHED.has(what)) renameSync(join(tablesFolder(), file), join(unclaimedFolder(), file));
    console.warn(
      `The table ${about ? `${about.name} of ${about.project.name}` : id} is named by no project; its files were moved to ${unclaimedFolder()}.`,
    );
  }
  // What was left of imports whose table is known was left by a reread or a save that was under way.
  for (const [id, files] of filesByTable(tablesFolder()))
    if (known.has(id))
      for (const { file, what } of files)
        if (UNFINISHED.has(what)) rmSync(join(tablesFolder(), file), { force: true });
}

/**
 * A table that no project names. `about` is null where its own note is missing or broken: then it cannot be
 * known again.
 */
export interface UnclaimedTable {
  id: string;
  folder: string;
  about: AboutTable | null;
}

/**
 * All tables that no project names, in the tables' folder and beside it. `known` are those that some project
 * has.
 */
export function unclaimedTables(known: ReadonlySet<string>): UnclaimedTable[] {
  return [tablesFolder(), unclaimedFolder()].flatMap((folder) =>
    [...filesByTable(folder)]
      .filter(([id, files]) => !known.has(id) && files.some((f) => f.what === "sqlite"))
      .map(([id]) => ({ id, folder, about: readAbout(join(folder, `${id}.about.json`)) })),
  );
}

/** Moves the files of an unclaimed table to where those of named tables are. */
export function reclaimFiles({ id, folder }: UnclaimedTable): void {
  if (folder === tablesFolder()) return;
  for (const { file } of filesByTable(folder).get(id) ?? [])
    renameSync(join(folder, file), join(tablesFolder(), file));
}

/** Removes the files of an unclaimed table, because somebody said so. */
export function removeUnclaimed({ id, folder }: UnclaimedTable): void {
  for (const { file } of filesByTable(folder).get(id) ?? [])
    rmSync(join(folder, file), { force: true, recursive: true });
}
