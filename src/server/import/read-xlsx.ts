import { readFileSync } from "node:fs";
import { strFromU8, unzipSync, zipSync } from "fflate";
import { readSheet } from "read-excel-file/node";
import { isoDate, isoTimestamp } from "@/core/formula/calendar";
import type { Cell } from "../store/table-files";
import { ImportProblem } from "./import-problem";
import type { ImportOptions, ReadTable } from "./read-table";
import { MAX_COLUMNS, RowTaker } from "./row-taker";

const MOST_UNPACKED = 500_000_000;
const MOST_CELLS = 30_000_000;
const DAY_MS = 86_400_000;

interface Area {
  top: number;
  left: number;
  bottom: number;
  right: number;
}

/**
 * Unpacks a workbook within a bound: an archive that says it is larger is refused before anything is unpacked, and one that says
 * less than it holds is cut off and then refused.
 */
function unpack(bytes: Uint8Array): Record<string, Uint8Array> {
  let total = 0;
  try {
    return unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        if (!/^(xl\/|\[Content_Types\]|_rels\/)/.test(name) || /\.(png|jpe?g|gif|emf|wmf|bin|vml)$/i.test(name)) return false;
        total += originalSize;
        if (total > MOST_UNPACKED)
          throw new ImportProblem(`The workbook unpacks to more than ${MOST_UNPACKED / 1e6} MB. Save the sheet that you need as CSV and bring in that file.`);
        return true;
      },
    });
  } catch (error) {
    if (error instanceof ImportProblem) throw error;
    throw new ImportProblem("The workbook cannot be unpacked. It may have been cut short; save it again and bring in the new file.");
  }
}

const unescaped = (text: string) =>
  text.replace(/&(#x?[0-9a-f]+|amp|lt|gt|quot|apos);/gi, (_, code: string) => {
    const named = { amp: "&", lt: "<", gt: ">", quot: '"', apos: "'" }[code.toLowerCase()];
    return named ?? String.fromCodePoint(code[1].toLowerCase() === "x" ? Number.parseInt(code.slice(2), 16) : Number.parseInt(code.slice(1), 10));
  });
const attribute = (tag: string, name: string) => {
  const found = new RegExp(`\\s${name}="([^"]*)"`).exec(tag)?.[1];
  return found === undefined ? null : unescaped(found);
};

/** The sheets of a workbook in their order, with the file inside that holds each. Hidden sheets come last. */
function sheetsOf(files: Record<string, Uint8Array>): { name: string; path: string }[] {
  const workbook = files["xl/workbook.xml"];
  const relations = files["xl/_rels/workbook.xml.rels"];
  if (!workbook || !relations) throw new ImportProblem("This archive is no XLSX workbook. Bring in a CSV, TSV, JSON, XLSX or Parquet file.");
  const targets = new Map([...strFromU8(relations).matchAll(/<Relationship\s[^>]*>/g)].map(([tag]) => [attribute(tag, "Id"), attribute(tag, "Target") ?? ""]));
  const sheets = [...strFromU8(workbook).matchAll(/<(?:\w+:)?sheet\s[^>]*>/g)].flatMap(([tag]) => {
    const target = targets.get(attribute(tag, "r:id"));
    const name = attribute(tag, "name");
    return target && name
      ? [{ name, path: target.startsWith("/") ? target.slice(1) : `xl/${target}`, hidden: attribute(tag, "state") !== null && attribute(tag, "state") !== "visible" }]
      : [];
  });
  const visible = [...sheets.filter((s) => !s.hidden), ...sheets.filter((s) => s.hidden)].filter((s) => s.path in files);
  if (visible.length === 0) throw new ImportProblem("The workbook holds no sheet with cells.");
  return visible;
}

const columnNumber = (letters: string) => [...letters].reduce((n, c) => n * 26 + c.charCodeAt(0) - 64, 0) - 1;

/** The merged areas of a sheet, rows and columns from 0. */
function mergesOf(sheet: Uint8Array): Area[] {
  return [...strFromU8(sheet).matchAll(/<(?:\w+:)?mergeCell\s[^>]*ref="([A-Z]+)(\d+):([A-Z]+)(\d+)"/g)].map(([, a, top, b, bottom]) => ({
    top: Number(top) - 1,
    left: columnNumber(a),
    bottom: Number(bottom) - 1,
    right: columnNumber(b),
  }));
}

/** Refuses a sheet whose cells span so large a grid that reading it would fill the memory, however few cells there are. */
function checkGrid(sheet: Uint8Array, name: string): void {
  let [columns, rows] = [0, 0];
  for (const [, letters, row] of strFromU8(sheet).matchAll(/<(?:\w+:)?c\s[^>]*?r="([A-Z]+)(\d+)"/g)) {
    columns = Math.max(columns, columnNumber(letters) + 1);
    rows = Math.max(rows, Number(row));
  }
  if (columns > MAX_COLUMNS)
    throw new ImportProblem(`The sheet ${name} has cells in ${columns} columns; at most ${MAX_COLUMNS} can be brought in. Delete what stands far to the right and save it again.`);
  if (columns * rows > MOST_CELLS)
    throw new ImportProblem(
      `The sheet ${name} spans ${rows} rows and ${columns} columns, more than can be read at once. Delete what stands far below, or save the sheet as CSV and bring in that file.`,
    );
}

function cellOf(value: unknown): Cell {
  if (value === null || value === undefined || value === "") return null;
  if (value instanceof Date) {
    const ms = Math.round(value.getTime() / 1000) * 1000;
    return ms % DAY_MS === 0 ? isoDate(ms / DAY_MS) : isoTimestamp(ms);
  }
  return String(value);
}

const filled = (row: Cell[]) => row.filter((c) => c !== null).length;

/**
 * The rows of a sheet without the titles above its head, and with a head of several rows made into one: a cell that is merged over
 * several columns stands before the names beneath it.
 */
function withOneHead(rows: Cell[][], merges: Area[]): { rows: { cells: Cell[]; number: number }[]; notes: string[] } {
  const notes: string[] = [];
  const width = rows.reduce((most, r) => Math.max(most, r.length), 0);
  let first = 0;
  while (first < rows.length - 1 && filled(rows[first]) === 0) first++;
  while (width > 1 && first < rows.length - 1 && filled(rows[first]) <= 1) first++;
  const skipped = rows.slice(0, first).filter((r) => filled(r) > 0).length;
  if (skipped) notes.push(`${skipped === 1 ? "A title" : `${skipped} lines`} above the head ${skipped === 1 ? "was" : "were"} left out.`);
  const spread = merges.filter((m) => m.top === first && m.right > m.left);
  const headEnd = spread.length ? Math.max(...merges.filter((m) => m.top === first).map((m) => m.bottom), first + 1) : first;
  if (headEnd > first && headEnd < rows.length - 1) {
    const head = Array.from({ length: width }, (_, column): Cell => {
      const parts: string[] = [];
      for (let row = first; row <= headEnd; row++) {
        const area = merges.find((m) => m.top <= row && row <= m.bottom && m.left <= column && column <= m.right);
        const text = area ? (rows[area.top]?.[area.left] ?? null) : (rows[row]?.[column] ?? null);
        if (text !== null && !parts.includes(text)) parts.push(text);
      }
      return parts.join(" ") || null;
    });
    notes.push(`The head has ${headEnd - first + 1} rows; they were made into one.`);
    return { rows: [{ cells: head, number: first + 1 }, ...rows.slice(headEnd + 1).map((cells, i) => ({ cells, number: headEnd + 2 + i }))], notes };
  }
  return { rows: rows.slice(first).map((cells, i) => ({ cells, number: first + 1 + i })), notes };
}

/** Reads one sheet of an XLSX workbook: the one that was asked for, else the first. */
export async function readXlsx(id: string, path: string, options: ImportOptions, progress: (share: number) => void): Promise<ReadTable> {
  const files = unpack(readFileSync(path));
  const sheets = sheetsOf(files);
  const sheet = sheets.find((s) => s.name === options.sheet) ?? sheets[0];
  if (options.sheet !== undefined && sheet.name !== options.sheet)
    throw new ImportProblem(`The workbook has no sheet called “${options.sheet}”. It has ${sheets.map((s) => s.name).join(", ")}.`);
  checkGrid(files[sheet.path], sheet.name);
  const merges = mergesOf(files[sheet.path]);
  progress(0.2);
  let data: unknown[][];
  try {
    // Only what was unpacked within the bound is handed on.
    data = await readSheet(Buffer.from(zipSync(files, { level: 0 })), sheet.name);
  } catch (error) {
    const why = error instanceof Error && !(error instanceof TypeError) ? ` (${error.message})` : "";
    throw new ImportProblem(`The sheet ${sheet.name} cannot be read${why}. Open the workbook, save it again as XLSX, and bring in the new file.`);
  }
  progress(0.6);
  const { rows, notes } = withOneHead(
    data.map((r) => r.map(cellOf)),
    merges,
  );
  const taker = new RowTaker(id, options.header);
  try {
    for (const [i, { cells, number }] of rows.entries()) {
      if (filled(cells) > 0) taker.take(cells, number);
      if (i % 5000 === 0) progress(0.6 + (0.39 * i) / rows.length);
    }
    const { rows: count, columns } = taker.finish();
    return {
      rows: count,
      columns,
      notes: [...notes, ...taker.notes],
      source: { format: "xlsx", header: taker.header, sheet: sheet.name, sheets: sheets.map((s) => s.name).slice(0, 200) },
    };
  } catch (error) {
    taker.abandon();
    throw error;
  }
}
