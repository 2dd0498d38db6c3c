import type { CellKind } from "@/core/data/reading-guess";
import type { Cell } from "../store/table-files";
import { ImportProblem } from "./import-problem";
import type { Progress } from "./progress";
import type { ImportOptions, ReadTable } from "./reader";
import { RowTaker } from "./row-taker";
import { WorkbookArchive } from "./workbook-archive";
import { type Area, mergesOf, workbookParts } from "./workbook-parts";
import { readSheetRows, type SheetRow } from "./workbook-sheet";

/** The head of a sheet and the titles above it lie within so many rows. */
const HEAD_WITHIN = 60;

const filled = (row: SheetRow) => row.cells.filter((c) => c !== null).length;

/**
 * The rows without the titles above the head, and with a head of several rows made into one: a cell that is
 * merged over several columns stands before the names beneath it. `rows` are the first of the sheet, as long
 * as they follow each other.
 */
function withOneHead(rows: SheetRow[], merges: Area[]): { rows: SheetRow[]; notes: string[] } {
  const notes: string[] = [];
  const width = rows.reduce((most, r) => Math.max(most, r.cells.length), 0);
  let first = 0;
  while (width > 1 && first < rows.length - 1 && filled(rows[first]) <= 1) first++;
  if (first > 0)
    notes.push(
      `${first === 1 ? "A title" : `${first} lines`} above the head ${first === 1 ? "was" : "were"} left out.`,
    );
  const top = rows[first]?.number - 1;
  const inHead = merges.filter((m) => m.top === top);
  const bottom = inHead.some((m) => m.right > m.left)
    ? Math.max(...inHead.map((m) => m.bottom), top + 1)
    : top;
  const after = rows.findIndex((r) => r.number - 1 > bottom);
  if (bottom === top || after < 0) return { rows: rows.slice(first), notes };
  const at = (row: number) => rows.find((r) => r.number - 1 === row)?.cells ?? [];
  const head = Array.from({ length: width }, (_, column): Cell => {
    const parts: string[] = [];
    for (let row = top; row <= bottom; row++) {
      const area = merges.find(
        (m) => m.top <= row && row <= m.bottom && m.left <= column && column <= m.right,
      );
      const text = area ? (at(area.top)[area.left] ?? null) : (at(row)[column] ?? null);
      if (text !== null && !parts.includes(text)) parts.push(text);
    }
    return parts.join(" ") || null;
  });
  notes.push(`The head has ${bottom - top + 1} rows; they were made into one.`);
  return {
    rows: [{ cells: head, kinds: head.map(() => "text" as CellKind), number: top + 1 }, ...rows.slice(after)],
    notes,
  };
}

/** Reads one sheet of an XLSX workbook as a stream: the one that was asked for, else the first. */
export async function readXlsx(
  id: string,
  path: string,
  options: ImportOptions,
  progress: Progress,
): Promise<ReadTable> {
  const archive = await WorkbookArchive.open(path);
  const taker = new RowTaker(id, options.header);
  try {
    const parts = await workbookParts(archive);
    const sheet = parts.sheets.find((s) => s.name === options.sheet) ?? parts.sheets[0];
    if (options.sheet !== undefined && options.sheet !== "" && sheet.name !== options.sheet)
      throw new ImportProblem(
        `The workbook has no sheet called “${options.sheet}”. It has ${parts.sheets.map((s) => s.name).join(", ")}.`,
      );
    const merges = await mergesOf(archive, sheet.path, HEAD_WITHIN);
    const bytes = archive.bytesRead + archive.sizeOf(sheet.path);
    const head: SheetRow[] = [];
    let begun = false;
    let taken = 0;
    const notes: string[] = [];
    const store = (row: SheetRow) => {
      taker.take(row.cells, row.number, row.kinds as CellKind[]);
      if (++taken % 2000 === 0) progress(Math.min(0.99, archive.bytesRead / bytes), taken);
    };
    const begin = () => {
      begun = true;
      const made = withOneHead(head, merges);
      notes.push(...made.notes);
      for (const row of made.rows) store(row);
    };
    await readSheetRows(archive, sheet, parts, (row) => {
      if (begun) return store(row);
      head.push(row);
      if (head.length === HEAD_WITHIN) begin();
    });
    if (!begun) begin();
    const read = taker.finish();
    return {
      ...read,
      notes: [...notes, ...read.notes],
      source: {
        format: "xlsx",
        header: taker.header,
        sheet: sheet.name,
        sheets: parts.sheets.map((s) => s.name).slice(0, 200),
      },
    };
  } catch (error) {
    taker.abandon();
    throw error;
  } finally {
    archive.close();
  }
}
