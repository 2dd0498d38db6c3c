import type { CellKind } from "@/core/data/reading-guess";
import type { Cell } from "../store/table-files";
import { FIRST_ROWS, FirstRows, rowsAboveSheet } from "./above-head";
import { ImportProblem } from "./import-problem";
import type { Progress } from "./progress";
import type { ImportOptions, ReadTable } from "./reader";
import { RowTaker } from "./row-taker";
import { WorkbookArchive } from "./workbook-archive";
import { type Area, mergesOf, workbookParts } from "./workbook-parts";
import { readSheetRows, type SheetRow } from "./workbook-sheet";

/**
 * The rows with a head of several rows made into one: a cell that is merged over several columns stands
 * before the names beneath it. `rows` are the first of the table, the head being the first of them. Notes are
 * added of what was done.
 */
function withOneHead(rows: SheetRow[], merges: Area[], notes: string[]): SheetRow[] {
  const width = rows.reduce((most, r) => Math.max(most, r.cells.length), 0);
  const top = rows[0]?.number - 1;
  const inHead = merges.filter((m) => m.top === top);
  const bottom = inHead.some((m) => m.right > m.left)
    ? Math.max(...inHead.map((m) => m.bottom), top + 1)
    : top;
  const after = rows.findIndex((r) => r.number - 1 > bottom);
  if (bottom === top || after < 0) return rows;
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
  return [{ cells: head, kinds: head.map(() => "text" as CellKind), number: top + 1 }, ...rows.slice(after)];
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
    const merges = await mergesOf(archive, sheet.path, FIRST_ROWS + (options.above ?? 0));
    const bytes = archive.bytesRead + archive.sizeOf(sheet.path);
    let read = 0;
    const notes: string[] = [];
    const first = new FirstRows<SheetRow>(options, taker, {
      above: rowsAboveSheet,
      shape: (rows) => withOneHead(rows, merges, notes),
    });
    await readSheetRows(archive, sheet, parts, (row) => {
      first.add(row);
      if (++read % 2000 === 0) progress(Math.min(0.99, archive.bytesRead / bytes), read);
    });
    first.end();
    const table = taker.finish();
    return {
      ...table,
      notes: [...first.notes, ...notes, ...table.notes],
      source: {
        format: "xlsx",
        header: taker.header,
        above: first.above,
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
