import { existsSync, mkdirSync, readFileSync, statSync } from "node:fs";
import { join } from "node:path";
import { crc32 } from "node:zlib";
import Database from "better-sqlite3";
import { settings } from "../settings";
import { writeWhole } from "./about-table";
import { faultAnswer } from "./disk-fault";
import { holdFolder } from "./folder-lock";
import { tablesFolder } from "./table-files";
import { sweepTables } from "./unclaimed";

/** Each step brings the database from version i to i + 1. Steps are never changed once shipped. */
const MIGRATIONS: ((db: Database.Database) => void)[] = [
  (db) =>
    db.exec(`create table projects (
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
     ) strict;`),
  // Deleted projects are kept for a while, documents carry a checksum, and it is known which revision names
  // which table.
  (db) => {
    db.exec(`alter table projects add column deleted_at text;
     alter table revisions add column sum integer;
     create table revision_tables (
       project_id text not null,
       revision integer not null,
       table_id text not null,
       primary key (project_id, revision, table_id),
       foreign key (project_id, revision) references revisions (project_id, revision) on delete cascade
     ) strict, without rowid;
     create table folder (starts integer not null) strict;
     insert into folder (starts) values (0);`);
    const all = db
      .prepare<[], { project_id: string; revision: number; document: string }>(
        "select project_id, revision, document from revisions",
      )
      .all();
    const sum = db.prepare("update revisions set sum = ? where project_id = ? and revision = ?");
    const names = db.prepare(
      "insert or ignore into revision_tables (project_id, revision, table_id) values (?, ?, ?)",
    );
    for (const r of all) {
      sum.run(documentSum(r.document), r.project_id, r.revision);
      for (const id of tableIdsIn(r.document)) names.run(r.project_id, r.revision, id);
    }
  },
];

/** The version of the database that this Cavlo writes. */
export const SCHEMA_VERSION = MIGRATIONS.length;

/** The checksum of a stored document (CRC-32). */
export const documentSum = (document: string): number => crc32(document);

/** The ids of the tables that a stored document names; none where it cannot be read. */
function tableIdsIn(document: string): string[] {
  try {
    const { tables } = JSON.parse(document) as { tables?: { id?: unknown }[] };
    return (tables ?? []).flatMap((t) => (typeof t.id === "string" ? [t.id] : []));
  } catch {
    return [];
  }
}

/** Brings the database to today's version. Gives whether it was of an earlier one. */
function migrate(db: Database.Database): boolean {
  const version = db.pragma("user_version", { simple: true }) as number;
  if (version > SCHEMA_VERSION)
    throw new Error(
      `The data folder was written by a newer version of Cavlo (${version}; this one knows ${SCHEMA_VERSION}). Use that version, or another data folder.`,
    );
  for (let v = version; v < SCHEMA_VERSION; v++) {
    db.transaction(() => {
      MIGRATIONS[v](db);
      db.pragma(`user_version = ${v + 1}`);
    }).immediate();
  }
  return version < SCHEMA_VERSION;
}

/**
 * How often the folder was opened, as the folder itself and the database in it know it. A database that knows
 * of fewer is an older one, put back.
 */
function countStart(db: Database.Database): { isOlder: boolean } {
  const file = join(settings.data, "folder.json");
  let inFolder: number | null = null;
  try {
    const { starts } = JSON.parse(readFileSync(file, "utf8")) as { starts?: unknown };
    inFolder = typeof starts === "number" ? starts : null;
  } catch {
    // A folder of an earlier version does not say.
  }
  const inDatabase = db.prepare<[], number>("select starts from folder").pluck().get() ?? 0;
  const starts = Math.max(inFolder ?? 0, inDatabase) + 1;
  db.prepare("update folder set starts = ?").run(starts);
  writeWhole(file, `${JSON.stringify({ starts })}\n`);
  return { isOlder: inFolder === null || inDatabase < inFolder };
}

const databaseFile = () => join(settings.data, "cavlo.sqlite");

/** Opens (and creates or migrates) the database in the data folder, which this process then holds. */
export function openDatabase(): Database.Database {
  holdFolder();
  mkdirSync(tablesFolder(), { recursive: true });
  const isNew = !existsSync(databaseFile());
  const db = new Database(databaseFile());
  try {
    db.pragma("journal_mode = wal");
    db.pragma("synchronous = full");
    db.pragma("foreign_keys = on");
    db.pragma("busy_timeout = 5000");
    const migrated = migrate(db);
    const { isOlder } = countStart(db);
    // A database that may know less than the folder holds says nothing about what can go.
    sweepTables(db, { trusted: !isNew && !migrated && !isOlder });
  } catch (error) {
    db.close();
    throw error;
  }
  return db;
}

const shared = globalThis as { cavloDatabase?: Database.Database; cavloDatabaseFile?: number };

/**
 * The process's one database. Throws where its file is no longer in the folder: writing would
 * go into nothing.
 */
export function database(): Database.Database {
  const now = statSync(databaseFile(), { throwIfNoEntry: false })?.ino;
  if (shared.cavloDatabase && now !== shared.cavloDatabaseFile) {
    if (now === undefined) throw faultAnswer("folder_gone");
    shared.cavloDatabase.close();
    shared.cavloDatabase = undefined;
  }
  if (!shared.cavloDatabase) {
    shared.cavloDatabase = openDatabase();
    shared.cavloDatabaseFile = statSync(databaseFile()).ino;
  }
  return shared.cavloDatabase;
}

/**
 * Opens the database for reading only, beside a Cavlo that may be serving from the same folder: nothing is
 * migrated or cleared up. Throws where there is none, or where it is of another version.
 */
export function openForReading(): void {
  if (!existsSync(databaseFile())) throw new Error(`There is no Cavlo data in ${settings.data}.`);
  const db = new Database(databaseFile(), { readonly: true });
  const version = db.pragma("user_version", { simple: true }) as number;
  if (version !== SCHEMA_VERSION) {
    db.close();
    throw new Error(
      `The data in ${settings.data} is of version ${version}, and this Cavlo reads ${SCHEMA_VERSION}. ${version < SCHEMA_VERSION ? "Start Cavlo with it once; that brings it up to date." : "Use the newer Cavlo."}`,
    );
  }
  shared.cavloDatabase = db;
  shared.cavloDatabaseFile = statSync(databaseFile()).ino;
}

/** Closes the process's database. */
export function closeDatabase(): void {
  shared.cavloDatabase?.close();
  shared.cavloDatabase = undefined;
}
