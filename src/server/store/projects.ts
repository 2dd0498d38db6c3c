import { nanoid } from "nanoid";
import { migrateDocument } from "@/core/project/migrations";
import { documentProblem, type Project } from "@/core/project/schema";
import { documentSchema } from "@/core/view/document";
import { announce } from "../events";
import { HttpError } from "../http/errors";
import { database, documentSum } from "./database";
import { removeTableFiles } from "./table-files";

const KEPT_REVISIONS = 200;
const DAY_MS = 86_400_000;
/** Deleted projects can be brought back for so long. */
export const KEPT_DAYS = 30;

/** What the list says of a project. */
export interface ProjectSummary {
  id: string;
  name: string;
  revision: number;
  changedAt: string;
}
/** A project with its document. */
export interface SavedProject extends ProjectSummary {
  document: Project;
}
/** A deleted project that can still be brought back. */
export interface DeletedProject extends ProjectSummary {
  /** Until when it can be brought back. */
  keptUntil: string;
}

type Row = { id: string; name: string; revision: number; changed_at: string };
type Revision = { revision: number; document: string; saved_at: string; sum: number | null };
const summary = (r: Row): ProjectSummary => ({
  id: r.id,
  name: r.name,
  revision: r.revision,
  changedAt: r.changed_at,
});

/** All projects that are not deleted, the last changed first. */
export function listProjects(): ProjectSummary[] {
  return database()
    .prepare<[], Row>(
      "select id, name, revision, changed_at from projects where deleted_at is null order by changed_at desc, id",
    )
    .all()
    .map(summary);
}

/** Projects that were deleted and can still be brought back, the last deleted first. */
export function deletedProjects(): DeletedProject[] {
  return database()
    .prepare<[], Row & { deleted_at: string }>(
      "select id, name, revision, changed_at, deleted_at from projects where deleted_at is not null order by deleted_at desc, id",
    )
    .all()
    .map((r) => ({
      ...summary(r),
      keptUntil: new Date(Date.parse(r.deleted_at) + KEPT_DAYS * DAY_MS).toISOString(),
    }));
}

/** Writes one revision, with its checksum and the tables that it names. Runs inside a transaction. */
function writeRevision(projectId: string, revision: number, document: Project, now: string): void {
  const db = database();
  const text = JSON.stringify(document);
  db.prepare(
    "insert into revisions (project_id, revision, document, saved_at, sum) values (?, ?, ?, ?, ?)",
  ).run(projectId, revision, text, now, documentSum(text));
  const names = db.prepare(
    "insert or ignore into revision_tables (project_id, revision, table_id) values (?, ?, ?)",
  );
  for (const { id } of document.tables) names.run(projectId, revision, id);
}

/** Makes a project out of a document. */
export function createProject(document: Project, id = nanoid(12)): ProjectSummary {
  const db = database();
  const now = new Date().toISOString();
  db.transaction(() => {
    db.prepare("insert into projects (id, name, revision, changed_at) values (?, ?, 1, ?)").run(
      id,
      document.name,
      now,
    );
    writeRevision(id, 1, document, now);
  }).immediate();
  return { id, name: document.name, revision: 1, changedAt: now };
}

/** What a stored revision holds, or why it cannot be read, in words. */
function readRevision({ document, sum }: Revision): { document: Project } | { problem: string } {
  if (sum !== null && documentSum(document) !== sum)
    return { problem: "what stands on the disk is not what was saved" };
  let value: unknown;
  try {
    value = JSON.parse(document);
  } catch {
    return { problem: "it is no JSON" };
  }
  const migrated = migrateDocument(value);
  if ("problem" in migrated) return migrated;
  const parsed = documentSchema.safeParse(migrated.document);
  return parsed.success ? { document: parsed.data } : { problem: documentProblem(parsed.error) };
}

const NO_PROJECT = "There is no such project. It may have been removed; go back to the list of projects.";

/** The row of a project. Throws 404 where there is none or it was deleted. */
function projectRow(id: string): Row {
  const row = database()
    .prepare<[string], Row & { deleted_at: string | null }>(
      "select id, name, revision, changed_at, deleted_at from projects where id = ?",
    )
    .get(id);
  if (!row) throw new HttpError(404, "no_project", NO_PROJECT);
  if (row.deleted_at !== null)
    throw new HttpError(
      404,
      "deleted_project",
      `${row.name} was removed. It is kept for ${KEPT_DAYS} days; bring it back from the list of projects.`,
    );
  return row;
}

/** Throws 404 where there is no such project, or it was removed. */
export function checkProject(id: string): void {
  projectRow(id);
}

/**
 * A project with its newest document. Throws 404 where there is none, and 409 with the newest sound revision
 * where the document is damaged.
 */
export function readProject(id: string): SavedProject {
  const row = projectRow(id);
  const newest = database()
    .prepare<[string, number], Revision>(
      "select revision, document, saved_at, sum from revisions where project_id = ? and revision = ?",
    )
    .get(id, row.revision);
  const read = newest ? readRevision(newest) : { problem: "it is not there" };
  if ("document" in read) return { ...summary(row), document: read.document };
  const sound = newestSound(id);
  const advice = sound
    ? `Revision ${sound.revision}, saved ${sound.savedAt}, is sound: open that one.`
    : "No revision of it can be read; restore a backup with ./start --restore, or bring its tables into a new project.";
  throw new HttpError(
    409,
    "damaged_document",
    `The newest revision (${row.revision}) of ${row.name} is damaged: ${read.problem}. ${advice}`,
    { sound },
  );
}

function newestSound(id: string): { revision: number; savedAt: string } | null {
  const all = database()
    .prepare<[string], Revision>(
      "select revision, document, saved_at, sum from revisions where project_id = ? order by revision desc",
    )
    .iterate(id);
  for (const r of all)
    if ("document" in readRevision(r)) return { revision: r.revision, savedAt: r.saved_at };
  return null;
}

/** The revisions of every project whose stored document is not what was saved. */
export function damagedRevisions(): { project: string; name: string; revision: number; problem: string }[] {
  const found: { project: string; name: string; revision: number; problem: string }[] = [];
  const all = database()
    .prepare<[], Revision & { id: string; name: string }>(
      "select p.id, p.name, r.revision, r.document, r.saved_at, r.sum from revisions r join projects p on p.id = r.project_id",
    )
    .iterate();
  for (const r of all) {
    const read = readRevision(r);
    if ("problem" in read)
      found.push({ project: r.id, name: r.name, revision: r.revision, problem: read.problem });
  }
  return found;
}

/**
 * Makes an earlier revision the newest one. Throws 404 where it is not there, and 409 where it is damaged.
 */
export function restoreRevision(id: string, revision: number): ProjectSummary {
  const db = database();
  const restored = db
    .transaction(() => {
      const row = projectRow(id);
      const stored = db
        .prepare<[string, number], Revision>(
          "select revision, document, saved_at, sum from revisions where project_id = ? and revision = ?",
        )
        .get(id, revision);
      if (!stored)
        throw new HttpError(
          404,
          "no_revision",
          `${row.name} has no revision ${revision}; the last ${KEPT_REVISIONS} are kept.`,
        );
      const read = readRevision(stored);
      if ("problem" in read)
        throw new HttpError(
          409,
          "damaged_document",
          `Revision ${revision} of ${row.name} is damaged: ${read.problem}.`,
        );
      return advance(row, read.document);
    })
    .immediate();
  announce({ type: "saved", project: id, revision: restored.revision });
  return restored;
}

/** Adds a revision after a project's newest one and lets go of the oldest. Runs inside a transaction. */
function advance({ id, revision }: Row, document: Project): ProjectSummary {
  const db = database();
  const now = new Date().toISOString();
  const next = revision + 1;
  writeRevision(id, next, document, now);
  db.prepare("update projects set name = ?, revision = ?, changed_at = ? where id = ?").run(
    document.name,
    next,
    now,
    id,
  );
  return { id, name: document.name, revision: next, changedAt: now };
}

/**
 * Lets go of revisions past the last ones, and of the tables that only they named: no undo and no revision
 * reaches those any more. A table that no revision has named yet is just being brought in, and stays. Gives
 * the tables whose files can go. Runs inside a transaction.
 */
function prune(id: string, newest: number): string[] {
  const db = database();
  const last = newest - KEPT_REVISIONS;
  const out = db
    .prepare<[string, number, string, number], string>(
      `select distinct table_id from revision_tables where project_id = ? and revision <= ?
       except select table_id from revision_tables where project_id = ? and revision > ?`,
    )
    .pluck()
    .all(id, last, id, last);
  db.prepare("delete from revisions where project_id = ? and revision <= ?").run(id, last);
  const forget = db.prepare("delete from stored_tables where id = ? and project_id = ?");
  return out.filter((table) => forget.run(table, id).changes > 0);
}

/**
 * Saves a document that grew from `revision`. When another window saved in between, nothing is written and
 * the newer project is given back as `newer`.
 */
export function saveProject(
  id: string,
  revision: number,
  document: Project,
): { saved: ProjectSummary } | { newer: SavedProject } {
  let unreached: string[] = [];
  const outcome = database()
    .transaction((): { saved: ProjectSummary } | { newer: SavedProject } => {
      const current = projectRow(id);
      if (current.revision !== revision) return { newer: readProject(id) };
      const saved = advance(current, document);
      unreached = prune(id, saved.revision);
      return { saved };
    })
    .immediate();
  for (const table of unreached) removeTableFiles(table);
  if ("saved" in outcome) announce({ type: "saved", project: id, revision: outcome.saved.revision });
  return outcome;
}

/** Deletes a project: it leaves the list, and is kept with its tables for `KEPT_DAYS`. */
export function deleteProject(id: string): void {
  projectRow(id);
  database().prepare("update projects set deleted_at = ? where id = ?").run(new Date().toISOString(), id);
  announce({ type: "deleted", project: id });
}

/** Takes the deleting of a project back. Throws 404 where it is gone for good. */
export function undeleteProject(id: string): ProjectSummary {
  const { changes } = database()
    .prepare("update projects set deleted_at = null where id = ? and deleted_at is not null")
    .run(id);
  if (changes === 0)
    throw new HttpError(
      404,
      "no_project",
      `There is no removed project of that name any more: they are kept for ${KEPT_DAYS} days.`,
    );
  const back = summary(projectRow(id));
  announce({ type: "brought back", project: id, revision: back.revision });
  return back;
}

/**
 * Removes for good what was deleted longer ago than `KEPT_DAYS`, or one deleted project at once because
 * somebody said so.
 */
export function purgeDeleted(only?: string): void {
  const db = database();
  const before = new Date(Date.now() - KEPT_DAYS * DAY_MS).toISOString();
  const gone =
    only === undefined
      ? db.prepare<[string], string>("select id from projects where deleted_at < ?").pluck().all(before)
      : [only];
  for (const id of gone) {
    const tables = db
      .prepare<[string], string>("select id from stored_tables where project_id = ?")
      .pluck()
      .all(id);
    const { changes } = db.prepare("delete from projects where id = ? and deleted_at is not null").run(id);
    if (changes > 0) for (const table of tables) removeTableFiles(table);
    else if (only !== undefined) throw new HttpError(404, "no_project", "There is no such removed project.");
  }
}

/** Notes that a table's rows are stored for a project. */
export function registerTable(projectId: string, table: { id: string; rows: number; columns: number }): void {
  database()
    .prepare("insert into stored_tables (id, project_id, rows, columns, created_at) values (?, ?, ?, ?, ?)")
    .run(table.id, projectId, table.rows, table.columns, new Date().toISOString());
}

/** How much of a table is stored. */
export interface StoredSize {
  rows: number;
  columns: number;
}

/** The tables whose rows are stored for a project, by id, with their numbers of rows and columns. */
export function storedTables(projectId: string): Map<string, StoredSize> {
  const rows = database()
    .prepare<[string], { id: string } & StoredSize>(
      "select id, rows, columns from stored_tables where project_id = ?",
    )
    .all(projectId);
  return new Map(rows.map(({ id, ...size }) => [id, size]));
}

/** The ids of all tables that some project has, deleted ones too. */
export function knownTables(): Set<string> {
  return new Set(database().prepare<[], string>("select id from stored_tables").pluck().all());
}
