/** What can be said of how a file is to be read, beside what its reader finds out. */
export type FileOption = "encoding" | "separator" | "header" | "above" | "sheet";

interface FileFormatEntry {
  /** The names of such files, and the media types that a system knows them by. */
  extensions: readonly string[];
  types: readonly string[];
  options: readonly FileOption[];
  /** What a part of the file that can be chosen is called. */
  sheetWord?: string;
}

/** The formats of files that come in; the server has a reader for each, which the compiler holds. */
export const FILE_FORMATS = {
  csv: {
    extensions: [".csv", ".tsv", ".txt"],
    types: ["text/csv", "text/tab-separated-values"],
    options: ["encoding", "separator", "header", "above"],
  },
  json: {
    extensions: [".json", ".ndjson", ".jsonl"],
    types: ["application/json"],
    options: ["sheet"],
    sheetWord: "Array",
  },
  xlsx: { extensions: [".xlsx"], types: [], options: ["sheet", "header", "above"], sheetWord: "Sheet" },
  parquet: { extensions: [".parquet"], types: [], options: [] },
} as const satisfies Record<string, FileFormatEntry>;

/** The id of a file format. */
export type FileFormat = keyof typeof FILE_FORMATS;
/** The ids of the file formats, in the order they are offered. */
export const FILE_FORMAT_IDS = Object.keys(FILE_FORMATS) as [FileFormat, ...FileFormat[]];

/** What is declared of a format. */
export const fileFormat = (format: FileFormat): FileFormatEntry => FILE_FORMATS[format];

/** What a file dialog offers. */
export const ACCEPTED_FILES = FILE_FORMAT_IDS.flatMap((id) => [
  ...FILE_FORMATS[id].extensions,
  ...FILE_FORMATS[id].types,
]).join(",");

/** The most rows that can stand above a table. */
export const MOST_ABOVE = 999;

/** The signs that can stand between the cells of a text file, with their names. */
export const SEPARATORS = { ",": "comma", ";": "semicolon", "\t": "tab", "|": "bar" } as const;
/** What can stand between the cells of a text file. */
export type Separator = keyof typeof SEPARATORS;

/** The encodings of text files, with their names. */
export const ENCODINGS = {
  "utf-8": "UTF-8",
  "utf-16le": "UTF-16, little end first",
  "utf-16be": "UTF-16, big end first",
  "windows-1252": "Windows-1252",
} as const;
/** How the bytes of a text file can be read. */
export type Encoding = keyof typeof ENCODINGS;

/** The keys of a list of names, for who needs them as a list. */
export const keysOf = <Key extends string>(names: Record<Key, unknown>) =>
  Object.keys(names) as [Key, ...Key[]];
