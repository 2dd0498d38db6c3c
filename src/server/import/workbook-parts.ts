import { ImportProblem } from "./import-problem";
import type { WorkbookArchive } from "./workbook-archive";
import { readXml, workbookText } from "./workbook-xml";

const RELATIONS = "xl/_rels/workbook.xml.rels";
const STYLES = "xl/styles.xml";
const SHARED_TEXTS = "xl/sharedStrings.xml";
const MOST_MERGES_TEXT = 5_000_000;

/** What is known of a workbook before its sheets are read. */
export interface WorkbookParts {
  /** The sheets in their order, with the file inside that holds each. Hidden sheets come last. */
  sheets: { name: string; path: string }[];
  /** Whether days are counted from 1904. */
  from1904: boolean;
  /** The texts that cells share, by their number. */
  texts: string[];
  /** For each cell style, how its numbers are shown. */
  shows: ShownAs[];
}

/** What a number with a format stands for. */
export type ShownAs = "number" | "date" | "time";

/**
 * The built-in number formats that are dates and times (ECMA-376, 18.8.30); 46 counts hours and so
 * stays a number.
 */
const DATES = new Set([
  14, 15, 16, 17, 22, 27, 28, 29, 30, 31, 34, 35, 36, 50, 51, 52, 53, 54, 55, 56, 57, 58,
]);
const TIMES = new Set([18, 19, 20, 21, 32, 33, 45, 47]);

/** What a built-in format stands for. */
function shownByStandard(id: number): ShownAs {
  if (DATES.has(id)) return "date";
  return TIMES.has(id) ? "time" : "number";
}

/**
 * What a format of the workbook's own stands for: by its date letters, outside of texts, colours
 * and elapsed hours.
 */
function shownBy(code: string): ShownAs {
  const first = code.replace(/"[^"]*"|\\.|_.|\*./g, "").split(";")[0];
  if (/\[(h+|m+|s+)\]/i.test(first)) return "number";
  const letters = first
    .replace(/\[[^\]]*\]/g, "")
    .replace(/general/gi, "")
    .replace(/AM\/PM|A\/P/gi, "h");
  if (/[ydg]/i.test(letters) || (/m/i.test(letters) && !/[hs]/i.test(letters))) return "date";
  return /[hs]/i.test(letters) ? "time" : "number";
}

async function readShows(archive: WorkbookArchive): Promise<ShownAs[]> {
  const formats = new Map<number, string>();
  const shows: ShownAs[] = [];
  let inCells = false;
  await readXml(archive.text(STYLES), {
    open: (name, a) => {
      if (name === "numFmt") formats.set(Number(a.numFmtId), a.formatCode ?? "");
      if (name === "cellXfs") inCells = true;
      if (name !== "xf" || !inCells) return;
      const id = Number(a.numFmtId ?? 0);
      const own = formats.get(id);
      shows.push(own === undefined ? shownByStandard(id) : shownBy(own));
    },
    close: (name) => {
      if (name === "cellXfs") inCells = false;
    },
  });
  return shows;
}

async function readTexts(archive: WorkbookArchive): Promise<string[]> {
  const texts: string[] = [];
  let [text, inText, inPhonetic] = ["", false, false];
  await readXml(archive.text(SHARED_TEXTS), {
    open: (name) => {
      if (name === "si") text = "";
      if (name === "rPh") inPhonetic = true;
      if (name === "t") inText = !inPhonetic;
    },
    close: (name) => {
      if (name === "t") inText = false;
      if (name === "rPh") inPhonetic = false;
      if (name === "si") texts.push(workbookText(text));
    },
    text: (piece) => {
      if (inText) text += piece;
    },
  });
  return texts;
}

/**
 * Reads all that a workbook says outside its sheets. Rejects with an ImportProblem where it is no workbook or
 * has no sheet with cells.
 */
export async function workbookParts(archive: WorkbookArchive): Promise<WorkbookParts> {
  if (!archive.has("xl/workbook.xml") || !archive.has(RELATIONS))
    throw new ImportProblem(
      "This archive is no XLSX workbook. Bring in a CSV, TSV, JSON, XLSX or Parquet file.",
    );
  const targets = new Map<string, string>();
  await readXml(archive.text(RELATIONS), {
    open: (name, a) => {
      if (name === "Relationship" && a.Id) targets.set(a.Id, a.Target ?? "");
    },
  });
  const sheets: { name: string; path: string; hidden: boolean }[] = [];
  let from1904 = false;
  await readXml(archive.text("xl/workbook.xml"), {
    open: (name, a) => {
      if (name === "workbookPr") from1904 = a.date1904 === "1" || a.date1904 === "true";
      const target =
        name === "sheet"
          ? targets.get(a["r:id"] ?? Object.entries(a).find(([k]) => k.endsWith(":id"))?.[1] ?? "")
          : undefined;
      if (target && a.name)
        sheets.push({
          name: a.name,
          path: target.startsWith("/") ? target.slice(1) : `xl/${target}`,
          hidden: a.state === "hidden" || a.state === "veryHidden",
        });
    },
  });
  const withCells = [...sheets.filter((s) => !s.hidden), ...sheets.filter((s) => s.hidden)].filter((s) =>
    archive.has(s.path),
  );
  if (withCells.length === 0) throw new ImportProblem("The workbook holds no sheet with cells.");
  // Workbooks that only hold numbers may have neither.
  const shows = archive.has(STYLES) ? await readShows(archive) : [];
  const texts = archive.has(SHARED_TEXTS) ? await readTexts(archive) : [];
  return { sheets: withCells, from1904, shows, texts };
}

/** An area of merged cells; rows and columns from 0. */
export interface Area {
  top: number;
  left: number;
  bottom: number;
  right: number;
}

/** The place of a column from its letters, A being 0 (ECMA-376, 18.18.7). */
export const columnNumber = (letters: string) =>
  [...letters].reduce((n, c) => n * 26 + c.charCodeAt(0) - 64, 0) - 1;

/**
 * The merged areas of a sheet that begin in its first rows. They stand after all cells, so the end of the
 * sheet is looked for first.
 */
export async function mergesOf(archive: WorkbookArchive, path: string, within: number): Promise<Area[]> {
  let [tail, found] = ["", false];
  for await (const piece of archive.text(path)) {
    tail += piece;
    if (!found) {
      const end = /<\/(?:\w+:)?sheetData\s*>|<(?:\w+:)?sheetData\s*\/>/.exec(tail);
      if (end) [tail, found] = [tail.slice(end.index + end[0].length), true];
      else tail = tail.slice(-40);
    }
    if (tail.length > MOST_MERGES_TEXT) break;
  }
  const areas: Area[] = [];
  for (const [, a, top, b, bottom] of tail.matchAll(/ref="([A-Z]{1,3})(\d{1,7}):([A-Z]{1,3})(\d{1,7})"/g)) {
    if (Number(top) <= within)
      areas.push({
        top: Number(top) - 1,
        left: columnNumber(a),
        bottom: Number(bottom) - 1,
        right: columnNumber(b),
      });
  }
  return areas;
}
