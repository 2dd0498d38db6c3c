import { nanoid } from "nanoid";
import { documentProblem, type Project, projectSchema } from "@/core/project/schema";
import { HttpError } from "../http/errors";
import { database } from "./database";
import { removeTableFiles } from "./table-files";

const KEPT_REVISIONS = 200;

export interface ProjectSummary {
  id: string;
  name: string;
  revision: number;
  changedAt: string;
}
export interface SavedProject extends ProjectSummary {
  document: Project;
}

type Row = { id: string; name: string; revision: number; changed_at: string };
const summary = (r: Row): ProjectSummary => ({ id: r.id, name: r.name, revision: r.revision, changedAt: r.changed_at });

/** All projects, the last changed first. */
export function listProjects(): ProjectSummary[] {
  return database().prepare<[], Row>("select id, name, revision, changed_at from projects order by changed_at desc, id").all().map(summary);
}

/** Makes a project out of a document. */
export function createProject(document: Project, id = nanoid(12)): ProjectSummary {
  const db = database();
  const now = new Date().toISOString();
  db.transaction(() => {
    db.prepare("insert into projects (id, name, revision, changed_at) values (?, ?, 1, ?)").run(id, document.name, now);
    db.prepare("insert into revisions (project_id, revision, document, saved_at) values (?, 1, ?, ?)").run(id, JSON.stringify(document), now);
  }).immediate();
  return { id, name: document.name, revision: 1, changedAt: now };
}

/** A project with its newest document. Throws 404 where there is none. */
export function readProject(id: string): SavedProject {
  const row = database()
    .prepare<[string], Row & { document: string }>(
      "select p.id, p.name, p.revision, p.changed_at, r.document from projects p join revisions r on r.project_id = p.id and r.revision = p.revision where p.id = ?",
    )
    .get(id);
  if (!row) throw new HttpError(404, "no_project", "There is no such project. It may have been deleted; go back to the list of projects.");
  const parsed = projectSchema.safeParse(JSON.parse(row.document));
  if (!parsed.success) throw new HttpError(500, "bad_document", `The stored project cannot be read: ${documentProblem(parsed.error)}`);
  return { ...summary(row), document: parsed.data };
}

/**
 * Saves a document that grew from `revision`. When another window saved in between, nothing is written and the newer
 * project is given back as `newer`.
 */
export function saveProject(id: string, revision: number, document: Project): { saved: ProjectSummary } | { newer: SavedProject } {
  const db = database();
  const now = new Date().toISOString();
  return db
    .transaction((): { saved: ProjectSummary } | { newer: SavedProject } => {
      const current = db.prepare<[string], Row>("select id, name, revision, changed_at from projects where id = ?").get(id);
      if (!current) throw new HttpError(404, "no_project", "There is no such project. It was deleted elsewhere; save this one as a file to keep it.");
      if (current.revision !== revision) return { newer: readProject(id) };
      const next = revision + 1;
      db.prepare("insert into revisions (project_id, revision, document, saved_at) values (?, ?, ?, ?)").run(id, next, JSON.stringify(document), now);
      db.prepare("update projects set name = ?, revision = ?, changed_at = ? where id = ?").run(document.name, next, now, id);
      db.prepare("delete from revisions where project_id = ? and revision <= ?").run(id, next - KEPT_REVISIONS);
      return { saved: { id, name: document.name, revision: next, changedAt: now } };
    })
    .immediate();
}

/** Deletes a project with its revisions and the files of its tables. */
export function deleteProject(id: string): void {
  const db = database();
  const tables = db.prepare<[string], { id: string }>("select id from stored_tables where project_id = ?").all(id);
  const { changes } = db.prepare("delete from projects where id = ?").run(id);
  if (changes === 0) throw new HttpError(404, "no_project", "There is no such project.");
  for (const table of tables) removeTableFiles(table.id);
}

/** Notes that a table's rows are stored for a project. */
export function registerTable(projectId: string, table: { id: string; rows: number; columns: number }): void {
  database()
    .prepare("insert into stored_tables (id, project_id, rows, columns, created_at) values (?, ?, ?, ?, ?)")
    .run(table.id, projectId, table.rows, table.columns, new Date().toISOString());
}

/** The ids of the tables whose rows are stored for a project, with their number of columns. */
export function storedTables(projectId: string): Map<string, number> {
  const rows = database().prepare<[string], { id: string; columns: number }>("select id, columns from stored_tables where project_id = ?").all(projectId);
  return new Map(rows.map((r) => [r.id, r.columns]));
}
