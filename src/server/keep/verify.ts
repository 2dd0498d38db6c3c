import { existsSync, readdirSync } from "node:fs";
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

/** One step of a check of the data folder. */
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

/** Typed columns are made again from the rows when they are next read, if those are sound. */
function brokenColumns({ id, project }: TableRow, name: string, rowsAreSound: boolean): Damage[] {
  const folder = tableFiles(id).columns;
  if (!existsSync(folder)) return [];
  const broken = readdirSync(folder).filter(
    (file) => !file.endsWith(".part") && !isSoundColumnFile(join(folder, file)),
  );
  if (broken.length === 0) return [];
  const advice = rowsAreSound
    ? "The rows are sound: it is made again from them when it is next read."
    : "It cannot be made again from the rows as they are now; what helps these helps it too.";
  return [
    {
      what: `${broken.length === 1 ? "A column" : `${broken.length} columns`} of ${name} in ${project}`,
      problem: "what stands on the disk is not what was written",
      advice,
    },
  ];
}

function tableDamage(table: TableRow): Damage[] {
  const files = tableFiles(table.id);
  const about = readAbout(files.about);
  const name = about?.name ?? table.id;
  if (!about) {
    const what = `The table ${name} of ${table.project}`;
    return existsSync(files.rows)
      ? [
          {
            what,
            problem: "it has no checksums",
            advice: "They are made at the next start; until then its rows cannot be verified.",
          },
        ]
      : [{ what, problem: "its rows are gone", advice: "Restore a backup, or bring the file in once more." }];
  }
  const found: Damage[] = [];
  const rows = damageOf(files.rows, about.sums.rows);
  const source = about.sums.source ? damageOf(files.source, about.sums.source) : null;
  if (rows) {
    const advice =
      about.sums.source && !source
        ? "Its kept file is sound: choose “Read the file again” on the Data step."
        : "Restore a backup, or bring the file in once more.";
    found.push({ what: `The rows of ${name} in ${table.project}`, problem: rows, advice });
  }
  if (source)
    found.push({
      what: `The kept file of ${name} in ${table.project}`,
      problem: source,
      advice: rows ? "Bring the file in once more." : "The rows are sound; the file cannot be read again.",
    });
  return [...found, ...brokenColumns(table, name, rows === null)];
}

/**
 * Looks at everything in the data folder: the database, every document, every table. Changes nothing. Gives
 * what it found step by step.
 */
export function* verifyFolder(): Generator<VerifyStep> {
  const db = database();
  const tables = db
    .prepare<[], TableRow>(
      "select t.id, p.name as project from stored_tables t join projects p on p.id = t.project_id order by p.name, t.id",
    )
    .all();
  const of = tables.length + 2;
  const checks = db.pragma("quick_check") as { quick_check: string }[];
  const broken = checks.map((c) => c.quick_check).filter((c) => c !== "ok");
  yield {
    done: 1,
    of,
    found: broken.slice(0, 5).map((problem) => ({
      what: "The database",
      problem,
      advice: "Keep a copy of the data folder and restore a backup with ./start --restore.",
    })),
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
