import { DAY_MS, isoDate, isoTimestamp } from "@/core/base/calendar";
import type { CellKind } from "@/core/data/reading-guess";
import type { Cell } from "../store/table-files";
import { ImportProblem } from "./import-problem";
import { MAX_COLUMNS } from "./row-taker";
import type { WorkbookArchive } from "./workbook-archive";
import { columnNumber, type ShownAs, type WorkbookParts } from "./workbook-parts";
import { readXml, workbookText } from "./workbook-xml";

const MOST_CELLS = 30_000_000;
/** 1970-01-01 counted in days from the first of 1900, and of 1904, as workbooks count them. */
const EPOCH_1900 = 25_569;
const EPOCH_1904 = 24_107;

/** A row of a sheet that has cells; `number` is from 1. */
export interface SheetRow {
  cells: Cell[];
  kinds: (CellKind | undefined)[];
  number: number;
}

interface Value {
  text: Cell;
  kind?: CellKind;
}

const NOTHING: Value = { text: null };

/** A number as the sheet shows it: dates and times by its format, else the number itself. */
function numberValue(raw: string, shown: ShownAs, from1904: boolean): Value {
  const value = Number(raw);
  if (raw === "" || !Number.isFinite(value)) return raw === "" ? NOTHING : { text: raw, kind: "text" };
  if (shown === "number") return { text: String(value), kind: "number" };
  if (shown === "time" && value >= 0 && value < 1)
    return { text: isoTimestamp(Math.round(value * 86_400) * 1000).slice(11), kind: "text" };
  // Counting from 1900, workbooks take 1900 for a leap year: days before March 1900 lie one further on.
  const days = value - (from1904 ? EPOCH_1904 : EPOCH_1900) + (!from1904 && value < 60 ? 1 : 0);
  const ms = Math.round(days * 86_400) * 1000;
  if (Math.abs(ms) > 8.64e15) return { text: String(value), kind: "number" };
  return { text: ms % DAY_MS === 0 ? isoDate(ms / DAY_MS) : isoTimestamp(ms), kind: "date" };
}

/** What a cell of a type holds, of the raw text within it. */
function heldBy(type: string, raw: string, style: number, { texts, shows, from1904 }: WorkbookParts): Value {
  switch (type) {
    case "s": {
      const text = texts[Number(raw)];
      return text ? { text, kind: "text" } : NOTHING;
    }
    case "str":
    case "inlineStr":
      return raw === "" ? NOTHING : { text: workbookText(raw), kind: "text" };
    case "b":
      return { text: raw.trim() === "1" || raw.trim() === "true" ? "true" : "false", kind: "boolean" };
    case "e":
      return NOTHING;
    case "d":
      return raw === "" ? NOTHING : { text: raw.replace(/T00:00:00(\.0+)?Z?$/, ""), kind: "date" };
    default:
      return numberValue(raw.trim(), shows[style] ?? "number", from1904);
  }
}

/**
 * Reads the rows of a sheet that have cells, in their order, and hands on each as it ends. Rejects with an
 * ImportProblem where the sheet spans too much.
 */
export async function readSheetRows(
  archive: WorkbookArchive,
  { name, path }: { name: string; path: string },
  parts: WorkbookParts,
  take: (row: SheetRow) => void,
): Promise<void> {
  let row: SheetRow = { cells: [], kinds: [], number: 0 };
  let [column, type, style, raw, taking] = [0, "", 0, "", false];
  let [width, cellsSeen, inPhonetic] = [0, 0, false];

  const place = (ref: string | undefined): number => {
    const m = ref === undefined ? null : /^([A-Z]{1,3})\d*$/.exec(ref);
    return m ? columnNumber(m[1]) : column;
  };
  await readXml(archive.text(path), {
    open: (tag, a) => {
      if (tag === "row") {
        const number = Number(a.r ?? row.number + 1);
        row = {
          cells: [],
          kinds: [],
          number: Number.isInteger(number) && number > row.number ? number : row.number + 1,
        };
        column = 0;
      } else if (tag === "c") {
        column = place(a.r);
        if (column + 1 > MAX_COLUMNS)
          throw new ImportProblem(
            `The sheet ${name} has cells in ${column + 1} columns; at most ${MAX_COLUMNS} can be brought in. Delete what stands far to the right and save it again.`,
          );
        [type, style, raw] = [a.t ?? "n", Number(a.s ?? 0), ""];
      } else if (tag === "rPh") inPhonetic = true;
      else if (tag === "v" || tag === "t") taking = !inPhonetic;
    },
    text: (piece) => {
      if (taking) raw += piece;
    },
    close: (tag) => {
      if (tag === "v" || tag === "t") taking = false;
      else if (tag === "rPh") inPhonetic = false;
      else if (tag === "c") {
        const { text, kind } = heldBy(type, raw, style, parts);
        while (row.cells.length < column) {
          row.cells.push(null);
          row.kinds.push(undefined);
        }
        row.cells[column] = text;
        row.kinds[column] = kind;
        column++;
      } else if (tag === "row" && row.cells.some((c) => c !== null)) {
        width = Math.max(width, row.cells.length);
        cellsSeen += width;
        if (cellsSeen > MOST_CELLS)
          throw new ImportProblem(
            `The sheet ${name} has more than ${MOST_CELLS / 1e6} million cells. Save it as CSV and bring in that file.`,
          );
        take(row);
      }
    },
  });
}
