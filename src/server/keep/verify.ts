import { existsSync, readdirSync, rmSync } from "node:fs";
import { join } from "node:path";
import { readAbout } from "../store/about-table";
import { damageOf } from "../store/checksums";
import { isSoundColumnFile } from "../store/column-files";
import { database } from "../store/database";
import { damagedRevisions } from "../store/projects";
import { tableFiles } from "../store/table-files";

/** Something that is not as it was written: what it is, what is wrong, and what can be done or was done. */
export interface Damage {
  what: string;
  problem: string;
  advice: string;
}

export interface VerifyStep {
  /** How much was looked at, of how much. */
  done: number;
  of: number;
  found: Damage[];
}

interface TableRow {
  id: string;
  project: string;
}

/** Typed columns can always be made again from the rows: a broken one is removed. */
function brokenColumns({ id, project }: TableRow, name: string): Damage[] {
  const folder = tableFiles(id).columns;
  if (!existsSync(folder)) return [];
  const broken = readdirSync(folder).filter((file) => !file.endsWith(".part") && !isSoundColumnFile(join(folder, file)));
  for (const file of broken) rmSync(join(folder, file), { force: true });
  if (broken.length === 0) return [];
  const what = `${broken.length === 1 ? "A column" : `${broken.length} columns`} of ${name} in ${project}`;
  return [{ what, problem: "what stands on the disk is not what was written", advice: "It was removed and is made again from the rows." }];
}

function tableDamage(table: TableRow): Damage[] {
  const files = tableFiles(table.id);
  const about = readAbout(files.about);
  const name = about?.name ?? table.id;
  if (!about) {
    const gone = !existsSync(files.rows);
    return gone
      ? [{ what: `The table ${name} of ${table.project}`, problem: "its rows are gone", advice: "Restore a backup, or bring the file in once more." }]
      : [{ what: `The table ${name} of ${table.project}`, problem: "it has no checksums", advice: "They are made at the next start; until then its rows cannot be verified." }];
  }
  const found = brokenColumns(table, name);
  const rows = damageOf(files.rows, about.sums.rows);
  const source = about.sums.source ? damageOf(files.source, about.sums.source) : null;
  if (rows) {
    const advice = about.sums.source && !source ? "Its kept file is sound: choose “Read the file again” on the Data step." : "Restore a backup, or bring the file in once more.";
    found.push({ what: `The rows of ${name} in ${table.project}`, problem: rows, advice });
  }
  if (source)
    found.push({
      what: `The kept file of ${name} in ${table.project}`,
      problem: source,
      advice: rows ? "Bring the file in once more." : "The rows are sound; the file cannot be read again.",
    });
  return found;
}

/** Looks at everything in the data folder: the database, every document, every table. Gives what it found step by step. */
export function* verifyFolder(): Generator<VerifyStep> {
  const db = database();
  const tables = db.prepare<[], TableRow>("select t.id, p.name as project from stored_tables t join projects p on p.id = t.project_id order by p.name, t.id").all();
  const of = tables.length + 2;
  const checks = db.pragma("quick_check") as { quick_check: string }[];
  const database_ = checks.map((c) => c.quick_check).filter((c) => c !== "ok");
  yield {
    done: 1,
    of,
    found: database_.slice(0, 5).map((problem) => ({ what: "The database", problem, advice: "Keep a copy of the data folder and restore a backup with ./start --restore." })),
  };
  yield {
    done: 2,
    of,
    found: damagedRevisions().map((d) => ({
      what: `Revision ${d.revision} of ${d.name}`,
      problem: d.problem,
      advice: "Where it is the newest, opening the project offers the newest sound one.",
    })),
  };
  for (const [i, table] of tables.entries()) yield { done: i + 3, of, found: tableDamage(table) };
}
