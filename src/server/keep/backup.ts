import { existsSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Readable } from "node:stream";
import Database from "better-sqlite3";
import { ZipFile } from "yazl";
import { HttpError } from "../http/errors";
import { database } from "../store/database";
import { tableFiles } from "../store/table-files";

/** The word by which a backup is known. */
export const BACKUP_FORMAT = "cavlo-backup-1";

/** What a backup says of one project: its row, its revisions as they were stored, and its tables. */
export interface ProjectBackup {
  project: { id: string; name: string; revision: number; changed_at: string; deleted_at: string | null };
  revisions: { revision: number; document: string; saved_at: string; sum: number | null }[];
  tables: { id: string; rows: number; columns: number; created_at: string }[];
}

/** The projects of a database as they are at one moment. */
function* projectsIn(db: Database.Database, only: string | null): Generator<ProjectBackup> {
  const projects = db
    .prepare<[], ProjectBackup["project"]>(
      "select id, name, revision, changed_at, deleted_at from projects order by id",
    )
    .all();
  for (const project of projects) {
    if (only !== null && project.id !== only) continue;
    yield {
      project,
      revisions: db
        .prepare<[string], ProjectBackup["revisions"][number]>(
          "select revision, document, saved_at, sum from revisions where project_id = ? order by revision",
        )
        .all(project.id),
      tables: db
        .prepare<[string], ProjectBackup["tables"][number]>(
          "select id, rows, columns, created_at from stored_tables where project_id = ? order by id",
        )
        .all(project.id),
    };
  }
}

/**
 * One file with everything, or with one project: an archive with each project's revisions and the files of
 * its tables. The database is copied by SQLite's own backup first, so that all of it is of one moment while
 * Cavlo goes on; files of tables never change once they are there. Throws 404 where there is no such project.
 */
export async function backupStream(only: string | null = null): Promise<Readable> {
  const folder = mkdtempSync(join(tmpdir(), "cavlo-backup-"));
  const zip = new ZipFile();
  const projects: ProjectBackup["project"][] = [];
  try {
    const copy = join(folder, "cavlo.sqlite");
    await database().backup(copy);
    const db = new Database(copy, { readonly: true });
    try {
      for (const backup of projectsIn(db, only)) {
        projects.push(backup.project);
        zip.addBuffer(Buffer.from(JSON.stringify(backup)), `projects/${backup.project.id}.json`);
        for (const { id } of backup.tables) {
          const { rows, about, source } = tableFiles(id);
          for (const [file, name] of [
            [rows, `${id}.sqlite`],
            [about, `${id}.about.json`],
            [source, `${id}.source`],
          ])
            if (existsSync(file)) zip.addFile(file, `tables/${name}`);
        }
      }
    } finally {
      db.close();
    }
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
  if (only !== null && projects.length === 0)
    throw new HttpError(404, "no_project", "There is no such project to back up.");
  zip.addBuffer(
    Buffer.from(
      JSON.stringify({
        format: BACKUP_FORMAT,
        madeAt: new Date().toISOString(),
        projects: projects.map(({ id, name }) => ({ id, name })),
      }),
    ),
    "backup.json",
  );
  zip.end();
  return zip.outputStream as unknown as Readable;
}
