import { copyFileSync, renameSync } from "node:fs";
import { nanoid } from "nanoid";
import type { TableInfo } from "@/core/project/schema";
import { HttpError } from "../http/errors";
import { registerTable, storedTables } from "../store/projects";
import { removeTableFiles, tableFiles } from "../store/table-files";
import type { Progress } from "./progress";
import type { ImportOptions, ReadTable } from "./read-table";
import { runJob } from "./run-job";
import { spool } from "./spool";
import type { ColumnDoubt } from "./table-builder";

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
  const source = { file, separator: ",", encoding: "utf-8", header: true, ...read.source, sheet, sheets };
  return {
    table: { id, name: name.slice(0, 120), rows: read.rows, columns: read.columns.map((c) => ({ ...c, hidden: false })), derived: [], source },
    notes: read.notes,
    doubts: read.doubts,
  };
}

async function store(projectId: string, id: string, path: string, file: string, options: ImportOptions, progress: Progress, signal?: AbortSignal): Promise<ImportedTable> {
  const read = await runJob<ReadTable>({ type: "table", id, path, file, options }, progress, signal);
  registerTable(projectId, { id, rows: read.rows, columns: read.columns.length });
  return tableInfo(id, file, read);
}

/** Brings a file with a table into a project. The rows are stored; the caller adds the table to the document. */
export async function importTable(
  projectId: string,
  file: string,
  body: AsyncIterable<Uint8Array>,
  options: ImportOptions,
  progress: Progress,
  signal?: AbortSignal,
): Promise<ImportedTable> {
  const id = nanoid(16);
  const files = tableFiles(id);
  try {
    await spool(body, files.upload);
    if (signal?.aborted) throw new HttpError(499, "cancelled", "The import was cancelled.");
    const imported = await store(projectId, id, files.upload, file, options, progress, signal);
    renameSync(files.upload, files.source);
    return imported;
  } catch (error) {
    removeTableFiles(id);
    throw error;
  }
}

/** Where each column of a table stands among the columns of a file to append. Throws a 422 HttpError where the two do not have the same columns. */
function columnMap(table: TableInfo, read: ReadTable): number[] {
  const has = read.columns.map((c) => c.name.toLowerCase());
  const missing = table.columns.filter((c) => !has.includes(c.name.toLowerCase())).map((c) => c.name);
  const more = read.columns.filter((c) => !table.columns.some((t) => t.name.toLowerCase() === c.name.toLowerCase())).map((c) => c.name);
  if (missing.length + more.length > 0) {
    const parts = [missing.length ? `lacks ${missing.slice(0, 5).join(", ")}` : "", more.length ? `has ${more.slice(0, 5).join(", ")} besides` : ""].filter(Boolean);
    throw new HttpError(
      422,
      "other_columns",
      `The file does not have the columns of ${table.name}: it ${parts.join(" and ")}. Give its columns the same names, or bring it in as a table of its own.`,
    );
  }
  return table.columns.map((c) => has.indexOf(c.name.toLowerCase()));
}

/** Makes a new stored table out of a table's rows and those of a file with the same columns. The old one stays until nothing names it. */
export async function appendRows(
  projectId: string,
  table: TableInfo,
  file: string,
  body: AsyncIterable<Uint8Array>,
  progress: Progress,
  signal?: AbortSignal,
): Promise<ImportedTable> {
  if (!storedTables(projectId).has(table.id)) throw new HttpError(404, "no_table", "There is no such table.");
  const [added, id] = [nanoid(16), nanoid(16)];
  const files = tableFiles(added);
  try {
    await spool(body, files.upload);
    const read = await runJob<ReadTable>({ type: "table", id: added, path: files.upload, file, options: {} }, (share, rows) => progress(share * 0.7, rows), signal);
    const rows = await runJob<number>({ type: "append", id, from: table.id, added, map: columnMap(table, read) }, (share) => progress(0.7 + share * 0.29), signal);
    registerTable(projectId, { id, rows, columns: table.columns.length });
    const source = { ...table.source, file: `${table.source.file} and ${file}`.slice(0, 300) };
    return { table: { ...table, id, rows, source }, notes: [`${read.rows} rows were appended; there are ${rows} now.`, ...read.notes], doubts: [] };
  } catch (error) {
    removeTableFiles(id);
    throw error;
  } finally {
    removeTableFiles(added);
  }
}

/** Reads a table's file again with other options, into a new table; the old one stays until nothing names it. */
export async function rereadTable(projectId: string, table: TableInfo, options: ImportOptions, progress: Progress, signal?: AbortSignal): Promise<ImportedTable> {
  if (!storedTables(projectId).has(table.id)) throw new HttpError(404, "no_table", "There is no such table.");
  const id = nanoid(16);
  const files = tableFiles(id);
  try {
    copyFileSync(tableFiles(table.id).source, files.source);
  } catch {
    throw new HttpError(409, "no_source", "The file this table came from is not kept here, so it cannot be read again. Bring the file in once more.");
  }
  return store(projectId, id, files.source, table.source.file, options, progress, signal);
}
