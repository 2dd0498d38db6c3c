import { strToU8, Zip, ZipDeflate } from "fflate";
import { DAY_MS, parseIsoDate, parseIsoTimestamp } from "@/core/base/calendar";
import type { Value } from "@/core/base/value";
import type { Head, TableFileWriter } from "./table-writer";

/** The most rows a sheet can have, its head among them (ECMA-376 workbooks as spreadsheets read them). */
export const XLSX_ROWS = 1_048_576;
/** The day that a sheet counts as 0, 1899-12-30, in days since 1970. */
const EPOCH = -25_569;
/**
 * 1900-03-01: spreadsheets disagree about the days before it, since some take 1900 for a leap year. Those are
 * written as texts.
 */
const SURE_FROM = EPOCH + 61;
const DATE_STYLE = 1;
const TIME_STYLE = 2;
const HEAD_STYLE = 3;

const XML = '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n';
const MAIN = 'xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"';
const OFFICE = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
const PACKAGE = "http://schemas.openxmlformats.org/package/2006";
const TYPES = "application/vnd.openxmlformats-officedocument.spreadsheetml";

/** How a cell looks (ECMA-376, 18.8.45): every reference that the standard asks for is written out. */
const xf = (format: number, font: number) =>
  `<xf numFmtId="${format}" fontId="${font}" fillId="0" borderId="0" xfId="0"${format ? ' applyNumberFormat="1"' : ""}${font ? ' applyFont="1"' : ""}/>`;

/** The parts of a workbook besides its one sheet. */
const PARTS: Record<string, string> = {
  "[Content_Types].xml": `<Types xmlns="${PACKAGE}/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Override PartName="/xl/workbook.xml" ContentType="${TYPES}.sheet.main+xml"/><Override PartName="/xl/worksheets/sheet1.xml" ContentType="${TYPES}.worksheet+xml"/><Override PartName="/xl/styles.xml" ContentType="${TYPES}.styles+xml"/></Types>`,
  "_rels/.rels": `<Relationships xmlns="${PACKAGE}/relationships"><Relationship Id="rId1" Type="${OFFICE}/officeDocument" Target="xl/workbook.xml"/></Relationships>`,
  "xl/workbook.xml": `<workbook ${MAIN} xmlns:r="${OFFICE}"><sheets><sheet name="Table" sheetId="1" r:id="rId1"/></sheets></workbook>`,
  "xl/_rels/workbook.xml.rels": `<Relationships xmlns="${PACKAGE}/relationships"><Relationship Id="rId1" Type="${OFFICE}/worksheet" Target="worksheets/sheet1.xml"/><Relationship Id="rId2" Type="${OFFICE}/styles" Target="styles.xml"/></Relationships>`,
  "xl/styles.xml": `<styleSheet ${MAIN}><numFmts count="2"><numFmt numFmtId="164" formatCode="yyyy\\-mm\\-dd"/><numFmt numFmtId="165" formatCode="yyyy\\-mm\\-dd\\ hh:mm:ss"/></numFmts><fonts count="2"><font><sz val="11"/><name val="Calibri"/></font><font><b/><sz val="11"/><name val="Calibri"/></font></fonts><fills count="2"><fill><patternFill patternType="none"/></fill><fill><patternFill patternType="gray125"/></fill></fills><borders count="1"><border><left/><right/><top/><bottom/><diagonal/></border></borders><cellStyleXfs count="1"><xf numFmtId="0" fontId="0" fillId="0" borderId="0"/></cellStyleXfs><cellXfs count="4">${xf(0, 0)}${xf(164, 0)}${xf(165, 0)}${xf(0, 1)}</cellXfs><cellStyles count="1"><cellStyle name="Normal" xfId="0" builtinId="0"/></cellStyles><dxfs count="0"/><tableStyles count="0"/></styleSheet>`,
};

/** The most characters of a cell, as spreadsheets read them. */
const MOST_CHARACTERS = 32_767;
const CUT = " … (cut: a cell of a workbook holds 32,767 characters)";

const escaped = (char: string) => `_x${char.charCodeAt(0).toString(16).toUpperCase().padStart(4, "0")}_`;

/**
 * A text for a cell: markup is escaped, and so is what XML 1.0 cannot hold, as workbooks write
 * it (ECMA-376, 22.9.2.19).
 */
function xmlText(whole: string): string {
  const text = whole.length > MOST_CHARACTERS ? whole.slice(0, MOST_CHARACTERS - CUT.length) + CUT : whole;
  return (
    text
      .toWellFormed()
      .replace(/_(?=x[0-9A-Fa-f]{4}_)/g, "_x005F_")
      // biome-ignore lint/suspicious/noControlCharactersInRegex: these are the characters that XML forbids
      .replace(/[\u0000-\u0008\u000b\u000c\u000d\u000e-\u001f\ufffe\uffff]/g, escaped)
      .replaceAll("&", "&amp;")
      .replaceAll("<", "&lt;")
      .replaceAll(">", "&gt;")
  );
}

const textCell = (at: string, text: string, style = 0) =>
  `<c r="${at}" t="inlineStr"${style ? ` s="${style}"` : ""}><is><t xml:space="preserve">${xmlText(text)}</t></is></c>`;

/** The letters of a column, from 0: A, B, … Z, AA. */
function letters(column: number): string {
  return (column >= 26 ? letters(Math.floor(column / 26) - 1) : "") + String.fromCharCode(65 + (column % 26));
}

function cell(at: string, value: Value, type: Head[number]["type"]): string {
  if (value === null) return "";
  if (typeof value === "number") return `<c r="${at}"><v>${value}</v></c>`;
  if (typeof value === "boolean") return `<c r="${at}" t="b"><v>${value ? 1 : 0}</v></c>`;
  const day = type === "date" ? parseIsoDate(value) : null;
  if (day !== null && day >= SURE_FROM) return `<c r="${at}" s="${DATE_STYLE}"><v>${day - EPOCH}</v></c>`;
  const moment = type === "timestamp" ? parseIsoTimestamp(value) : null;
  if (moment !== null && moment / DAY_MS >= SURE_FROM)
    return `<c r="${at}" s="${TIME_STYLE}"><v>${moment / DAY_MS - EPOCH}</v></c>`;
  return textCell(at, value);
}

/** Writes a workbook of one sheet as its rows come: texts are never read as formulas, dates are dates. */
export class XlsxWriter implements TableFileWriter {
  private chunks: Uint8Array[] = [];
  private readonly zip: Zip;
  private readonly sheet = new ZipDeflate("xl/worksheets/sheet1.xml", { level: 4 });

  private readonly letters: string[];
  private row = 1;

  constructor(private readonly columns: Head) {
    this.letters = columns.map((_, i) => letters(i));
    this.zip = new Zip((error, chunk) => {
      if (error) throw error;
      this.chunks.push(chunk);
    });
  }

  /** What the archive has given since it was last asked. */
  private taken(): Uint8Array {
    const bytes = new Uint8Array(this.chunks.reduce((sum, c) => sum + c.length, 0));
    let at = 0;
    for (const chunk of this.chunks) {
      bytes.set(chunk, at);
      at += chunk.length;
    }
    this.chunks = [];
    return bytes;
  }

  head(): Uint8Array {
    for (const [name, content] of Object.entries(PARTS)) {
      const part = new ZipDeflate(name);
      this.zip.add(part);
      part.push(strToU8(XML + content), true);
    }
    this.zip.add(this.sheet);
    const frozen =
      '<sheetViews><sheetView workbookViewId="0"><pane ySplit="1" topLeftCell="A2" activePane="bottomLeft" state="frozen"/></sheetView></sheetViews>';
    this.sheet.push(
      strToU8(
        `${XML}<worksheet ${MAIN}>${frozen}<sheetData><row r="1">${this.columns.map((c, k) => textCell(`${this.letters[k]}1`, c.name, HEAD_STYLE)).join("")}</row>`,
      ),
    );
    return this.taken();
  }

  rows(columns: Value[][]): Uint8Array {
    let text = "";
    for (let i = 0; i < (columns[0]?.length ?? 0); i++) {
      const row = ++this.row;
      text += `<row r="${row}">${this.columns.map((c, k) => cell(`${this.letters[k]}${row}`, columns[k][i], c.type)).join("")}</row>`;
    }
    this.sheet.push(strToU8(text));
    return this.taken();
  }

  end(): Uint8Array {
    this.sheet.push(strToU8("</sheetData></worksheet>"), true);
    this.zip.end();
    return this.taken();
  }
}
