import { mkdirSync, readdirSync, rmSync } from "node:fs";
import { join } from "node:path";
import Database from "better-sqlite3";
import { settings } from "../settings";

/** Each step brings the database from version i to i + 1. Steps are never changed once shipped. */
const MIGRATIONS = [
  `create table projects (
     id text primary key,
     name text not null,
     revision integer not null,
     changed_at text not null
   ) strict;
   create table revisions (
     project_id text not null references projects (id) on delete cascade,
     revision integer not null,
     document text not null,
     saved_at text not null,
     primary key (project_id, revision)
   ) strict;
   create table stored_tables (
     id text primary key,
     project_id text not null references projects (id) on delete cascade,
     rows integer not null,
     columns integer not null,
     created_at text not null
   ) strict;`,
];

export const SCHEMA_VERSION = MIGRATIONS.length;

function migrate(db: Database.Database): void {
  const version = db.pragma("user_version", { simple: true }) as number;
  if (version > SCHEMA_VERSION)
    throw new Error(`The data folder was written by a newer version of Cavlo (${version}; this one knows ${SCHEMA_VERSION}). Use that version, or another data folder.`);
  for (let v = version; v < SCHEMA_VERSION; v++) {
    db.transaction(() => {
      db.exec(MIGRATIONS[v]);
      db.pragma(`user_version = ${v + 1}`);
    }).immediate();
  }
}

/** The folder with one SQLite file a table. */
export const tablesFolder = () => join(settings.data, "tables");

/** Removes what a stopped process left half-done: files of imports that never ended, and tables no project knows. */
function sweep(db: Database.Database): void {
  const known = new Set(
    db
      .prepare<[], { id: string }>("select id from stored_tables")
      .all()
      .map((t) => t.id),
  );
  for (const file of readdirSync(tablesFolder())) {
    const id = file.split(".")[0];
    if (file.includes(".part") || file.includes(".upload") || !known.has(id)) rmSync(join(tablesFolder(), file), { force: true, recursive: true });
  }
}

/** Opens (and creates or migrates) the database in the data folder. */
export function openDatabase(): Database.Database {
  mkdirSync(tablesFolder(), { recursive: true });
  const db = new Database(join(settings.data, "cavlo.sqlite"));
  db.pragma("journal_mode = wal");
  db.pragma("synchronous = full");
  db.pragma("foreign_keys = on");
  db.pragma("busy_timeout = 5000");
  migrate(db);
  sweep(db);
  return db;
}

const shared = globalThis as { cavloDatabase?: Database.Database };

/** The process's one database. */
export function database(): Database.Database {
  shared.cavloDatabase ??= openDatabase();
  return shared.cavloDatabase;
}
