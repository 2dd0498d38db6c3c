import { createWriteStream, renameSync } from "node:fs";
import { buffer } from "node:stream/consumers";
import { pipeline } from "node:stream/promises";
import { promisify } from "node:util";
import { nanoid } from "nanoid";
import yauzl, { type Entry, type ZipFile } from "yauzl";
import { z } from "zod";
import { cutText } from "@/core/base/cut-text";
import { readAbout, writeAbout } from "../store/about-table";
import { damageOf } from "../store/checksums";
import { database, documentSum } from "../store/database";
import { removeTableFiles, tableFiles } from "../store/table-files";
import { BACKUP_FORMAT } from "./backup";

const id = z.string().regex(/^[A-Za-z0-9_-]{1,40}$/);
const backupSchema = z.object({
  project: z.object({
    id,
    name: z.string(),
    revision: z.int().min(1),
    changed_at: z.string(),
    deleted_at: z.string().nullable(),
  }),
  revisions: z
    .array(
      z.object({
        revision: z.int().min(1),
        document: z.string(),
        saved_at: z.string(),
        sum: z.number().nullable(),
      }),
    )
    .min(1),
  tables: z.array(z.object({ id, rows: z.int().min(0), columns: z.int().min(0), created_at: z.string() })),
});

/** What came of a restore, for each project of the backup. */
export interface Restored {
  id: string;
  name: string;
  /** What is missing in it, in whole sentences. */
  notes: string[];
}

async function entriesOf(zip: ZipFile): Promise<Map<string, Entry>> {
  const entries = new Map<string, Entry>();
  await new Promise<void>((resolve, reject) => {
    zip.on("entry", (entry: Entry) => {
      entries.set(entry.fileName, entry);
      zip.readEntry();
    });
    zip.on("end", resolve);
    zip.on("error", reject);
    zip.readEntry();
  });
  return entries;
}

/**
 * Puts a backup's projects into the data folder. One that is there already comes in beside it under
 * another name. Throws with a sentence where the file is no backup or is damaged; a project comes in whole
 * or not at all.
 */
export async function restoreBackup(path: string): Promise<Restored[]> {
  let zip: ZipFile;
  try {
    zip = await promisify<string, yauzl.Options, ZipFile>(yauzl.open)(path, {
      lazyEntries: true,
      autoClose: false,
    });
  } catch (error) {
    throw new Error(`${path} is no backup, or it was cut short (${(error as Error).message}).`);
  }
  try {
    const entries = await entriesOf(zip);
    const stream = (entry: Entry) =>
      promisify<Entry, NodeJS.ReadableStream>(zip.openReadStream.bind(zip) as never)(entry);
    const json = async (name: string): Promise<unknown> => {
      const entry = entries.get(name);
      return entry ? JSON.parse((await buffer(await stream(entry))).toString("utf8")) : null;
    };
    const head = z
      .object({ format: z.literal(BACKUP_FORMAT), projects: z.array(z.object({ id, name: z.string() })) })
      .safeParse(await json("backup.json"));
    if (!head.success) throw new Error(`${path} is no backup that this version of Cavlo can read.`);
    const restored: Restored[] = [];
    for (const { id: project, name } of head.data.projects) {
      const backup = backupSchema.safeParse(await json(`projects/${project}.json`));
      if (!backup.success)
        throw new Error(
          `The project ${name} in the backup is damaged. What stood before it in the file was restored.`,
        );
      restored.push(await restoreProject(backup.data, entries, stream));
    }
    return restored;
  } finally {
    zip.close();
  }
}

type Backup = z.infer<typeof backupSchema>;

/**
 * The document under the name and with the tables' ids that it has here; `name` is null where it keeps its
 * own.
 */
function asItIsHere(document: string, ids: ReadonlyMap<string, string>, name: string | null): string {
  if (name === null && [...ids].every(([from, to]) => from === to)) return document;
  const value = JSON.parse(document) as { name: string; tables: { id: string }[] };
  return JSON.stringify({
    ...value,
    name: name ?? value.name,
    tables: value.tables.map((t) => ({ ...t, id: ids.get(t.id) ?? t.id })),
  });
}

type Streamer = (entry: Entry) => Promise<NodeJS.ReadableStream>;

/** Where a project of a backup goes: under its own ids where they are free, else under fresh ones. */
interface Destination {
  project: string;
  name: string;
  isHere: boolean;
  /** The id of each table here, by its id in the backup. */
  ids: Map<string, string>;
}

function destinationOf({ project, tables }: Backup): Destination {
  const db = database();
  const isHere = db.prepare("select 1 from projects where id = ?").get(project.id) !== undefined;
  const isTaken = tables.some(
    (t) => db.prepare("select 1 from stored_tables where id = ?").get(t.id) !== undefined,
  );
  return {
    project: isHere ? nanoid(12) : project.id,
    name: isHere ? cutText(`${project.name} (restored)`, 120) : project.name,
    isHere,
    ids: new Map(tables.map((t) => [t.id, isHere || isTaken ? nanoid(16) : t.id])),
  };
}

/**
 * Writes the files of a table under its id here; gives a note where its rows are not as they were. Until a
 * file is whole it has a name that the next start knows as unfinished.
 */
async function writeTable(
  table: string,
  { ids, project, name }: Destination,
  entries: Map<string, Entry>,
  stream: Streamer,
): Promise<string[]> {
  const fresh = ids.get(table) as string;
  const files = tableFiles(fresh);
  for (const [entryName, part, file] of [
    [`${table}.sqlite`, files.part, files.rows],
    [`${table}.source`, files.upload, files.source],
    [`${table}.about.json`, `${files.about}.part`, files.about],
  ]) {
    const entry = entries.get(`tables/${entryName}`);
    if (!entry) continue;
    await pipeline(await stream(entry), createWriteStream(part));
    renameSync(part, file);
  }
  const about = readAbout(files.about);
  if (about) writeAbout({ ...about, id: fresh, project: { id: project, name } });
  const missing = entries.has(`tables/${table}.sqlite`) ? null : "the file is not in the backup";
  const damage = about ? damageOf(files.rows, about.sums.rows) : missing;
  return damage ? [`The rows of the table ${about?.name ?? table} are not as they were: ${damage}.`] : [];
}

/** Registers a project with its revisions and its tables, all or nothing. */
function register(backup: Backup, { project, name, isHere, ids }: Destination): void {
  const db = database();
  const { revision, changed_at, deleted_at } = backup.project;
  db.transaction(() => {
    db.prepare(
      "insert into projects (id, name, revision, changed_at, deleted_at) values (?, ?, ?, ?, ?)",
    ).run(project, name, revision, changed_at, isHere ? null : deleted_at);
    const add = db.prepare(
      "insert into revisions (project_id, revision, document, saved_at, sum) values (?, ?, ?, ?, ?)",
    );
    const names = db.prepare(
      "insert or ignore into revision_tables (project_id, revision, table_id) values (?, ?, ?)",
    );
    for (const r of backup.revisions) {
      // A revision that was damaged before stays so, and is told when it is opened.
      const sound = r.sum === null || documentSum(r.document) === r.sum;
      const document = sound ? asItIsHere(r.document, ids, isHere ? name : null) : r.document;
      add.run(project, r.revision, document, r.saved_at, sound ? documentSum(document) : r.sum);
      if (sound)
        for (const t of (JSON.parse(document) as { tables?: { id: string }[] }).tables ?? [])
          names.run(project, r.revision, t.id);
    }
    const table = db.prepare(
      "insert into stored_tables (id, project_id, rows, columns, created_at) values (?, ?, ?, ?, ?)",
    );
    for (const t of backup.tables) table.run(ids.get(t.id), project, t.rows, t.columns, t.created_at);
  }).immediate();
}

async function restoreProject(
  backup: Backup,
  entries: Map<string, Entry>,
  stream: Streamer,
): Promise<Restored> {
  const to = destinationOf(backup);
  const written: string[] = [];
  const notes: string[] = [];
  try {
    for (const { id } of backup.tables) {
      written.push(to.ids.get(id) as string);
      notes.push(...(await writeTable(id, to, entries, stream)));
    }
    register(backup, to);
    return { id: to.project, name: to.name, notes };
  } catch (error) {
    for (const table of written) removeTableFiles(table);
    throw error;
  }
}
