import { copyFileSync, existsSync, renameSync } from "node:fs";
import { nanoid } from "nanoid";
import { cutText } from "@/core/base/cut-text";
import { findNamed, sameName } from "@/core/base/names";
import { readingKey, readingLabel } from "@/core/data/reading-label";
import type { TableInfo } from "@/core/project/schema";
import { HttpError } from "../http/errors";
import { readAbout } from "../store/about-table";
import { damageOf } from "../store/checksums";
import { storedTables } from "../store/projects";
import { recordTable } from "../store/record-table";
import { holdRows } from "../store/sound-rows";
import { removeTableFiles, tableFiles } from "../store/table-files";
import type { TableSums } from "./job";
import type { Follower } from "./progress";
import type { ImportOptions, ReadTable } from "./reader";
import { runJob } from "./run-job";
import { spool } from "./spool";
import type { ColumnDoubt } from "./table-builder";

/** A file that is being sent: its name and its bytes as they come. */
interface SentFile {
  file: string;
  body: AsyncIterable<Uint8Array>;
}

/** A table that was brought in, not yet in the document. */
export interface ImportedTable {
  table: TableInfo;
  notes: string[];
  /** What columns could be read as besides. */
  doubts: ColumnDoubt[];
}

function tableInfo(id: string, file: string, read: ReadTable): ImportedTable {
  const base = file.replace(/^.*[\\/]/, "").replace(/\.[^.]*$/, "") || "table";
  const { sheet = "", sheets = [] } = read.source;
  const name = sheets.length > 1 ? sheet : base;
  const source = {
    file,
    separator: ",",
    encoding: "utf-8",
    header: true,
    above: 0,
    ...read.source,
    sheet,
    sheets,
  };
  return {
    table: {
      id,
      name: cutText(name, 120),
      rows: read.rows,
      columns: read.columns.map((c) => ({ ...c, hidden: false })),
      derived: [],
      source,
    },
    notes: read.notes,
    doubts: read.doubts,
  };
}

async function store(
  projectId: string,
  job: { id: string; path: string; file: string; options: ImportOptions },
  follower: Follower,
): Promise<ImportedTable> {
  const { id, path, file } = job;
  const read = await runJob<ReadTable & { sums: TableSums }>({ type: "table", ...job }, follower);
  const imported = tableInfo(id, file, read);
  // Before the table is registered, so that whatever is registered can be read again.
  if (path !== tableFiles(id).source) renameSync(path, tableFiles(id).source);
  recordTable(projectId, imported.table, read.sums);
  return imported;
}

/**
 * Brings a file with a table into a project. The rows are stored; the caller adds the table to the document.
 */
export async function importTable(
  projectId: string,
  sent: SentFile,
  options: ImportOptions,
  follower: Follower,
): Promise<ImportedTable> {
  const id = nanoid(16);
  const files = tableFiles(id);
  try {
    await spool(sent.body, files.upload);
    if (follower.signal?.aborted) throw new HttpError(499, "cancelled", "The import was cancelled.");
    return await store(projectId, { id, path: files.upload, file: sent.file, options }, follower);
  } catch (error) {
    removeTableFiles(id);
    throw error;
  }
}

/**
 * Where each column of a table stands among the columns of a file to append. Throws a 422 HttpError where the
 * two do not have the same columns.
 */
function columnMap(table: TableInfo, read: ReadTable): number[] {
  const has = read.columns.map((c) => c.name.toLowerCase());
  const missing = table.columns.filter((c) => !has.includes(c.name.toLowerCase())).map((c) => c.name);
  const more = read.columns
    .filter((c) => !table.columns.some((t) => sameName(t.name, c.name)))
    .map((c) => c.name);
  if (missing.length + more.length > 0) {
    const parts = [
      missing.length ? `lacks ${missing.slice(0, 5).join(", ")}` : "",
      more.length ? `has ${more.slice(0, 5).join(", ")} besides` : "",
    ].filter(Boolean);
    throw new HttpError(
      422,
      "other_columns",
      `The file does not have the columns of ${table.name}: it ${parts.join(" and ")}. Give its columns the same names, or bring it in as a table of its own.`,
    );
  }
  return table.columns.map((c) => has.indexOf(c.name.toLowerCase()));
}

/**
 * Columns whose cells in the added file look as if they were to be read in another way than the
 * table reads them.
 */
function readOtherwise(table: TableInfo, read: ReadTable): string[] {
  return table.columns.flatMap(({ name, reading }) => {
    const added = findNamed(read.columns, name)?.reading;
    const differs =
      added &&
      added.type === reading.type &&
      added.type !== "text" &&
      readingKey(added) !== readingKey(reading);
    return differs
      ? [
          `${name} is read as ${readingLabel(reading)}, but in the appended file it looks like ${readingLabel(added)}. See that its cells are read as they are meant.`,
        ]
      : [];
  });
}

/**
 * Makes a new stored table out of a table's rows and those of a file with the same columns. The old one stays
 * until nothing names it.
 */
export async function appendRows(
  projectId: string,
  table: TableInfo,
  { file, body }: SentFile,
  { progress, signal }: Follower,
): Promise<ImportedTable> {
  if (!storedTables(projectId).has(table.id)) throw new HttpError(404, "no_table", "There is no such table.");
  holdRows(table);
  const [added, id] = [nanoid(16), nanoid(16)];
  const files = tableFiles(added);
  try {
    await spool(body, files.upload);
    const read = await runJob<ReadTable>(
      { type: "table", id: added, path: files.upload, file, options: {} },
      { progress: (share, rows) => progress(share * 0.7, rows), signal },
    );
    const { rows, sums } = await runJob<{ rows: number; sums: TableSums }>(
      { type: "append", id, from: table.id, added, map: columnMap(table, read) },
      { progress: (share) => progress(0.7 + share * 0.29), signal },
    );
    const source = { ...table.source, file: cutText(`${table.source.file} and ${file}`, 300) };
    const made = { ...table, id, rows, source };
    recordTable(projectId, made, sums);
    return {
      table: made,
      notes: [
        `${read.rows} rows were appended; there are ${rows} now.`,
        ...readOtherwise(table, read),
        ...read.notes,
      ],
      doubts: [],
    };
  } catch (error) {
    removeTableFiles(id);
    throw error;
  } finally {
    removeTableFiles(added);
  }
}

/**
 * Reads a table's file again with other options, into a new table; the old one stays until nothing names it.
 */
export async function rereadTable(
  projectId: string,
  table: TableInfo,
  options: ImportOptions,
  follower: Follower,
): Promise<ImportedTable> {
  if (!storedTables(projectId).has(table.id)) throw new HttpError(404, "no_table", "There is no such table.");
  const id = nanoid(16);
  const files = tableFiles(id);
  const kept = tableFiles(table.id);
  const about = readAbout(kept.about);
  const damage =
    existsSync(kept.source) && about?.sums.source ? damageOf(kept.source, about.sums.source) : null;
  if (damage)
    throw new HttpError(
      409,
      "damaged_source",
      `The kept file of ${table.name} is damaged: ${damage}. Bring the file in once more.`,
    );
  try {
    copyFileSync(kept.source, files.source);
    return await store(projectId, { id, path: files.source, file: table.source.file, options }, follower);
  } catch (error) {
    removeTableFiles(id);
    if ((error as { code?: unknown }).code !== "ENOENT") throw error;
    throw new HttpError(
      409,
      "no_source",
      "The file this table came from is not kept here, so it cannot be read again. Bring the file in once more.",
    );
  }
}
