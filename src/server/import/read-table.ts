import { closeSync, openSync, readSync } from "node:fs";
import type { FileFormat } from "@/core/data/file-formats";
import { ImportProblem } from "./import-problem";
import type { Progress } from "./progress";
import type { ImportOptions, Reader, ReadTable } from "./reader";

/**
 * Each reader with its packages is loaded when a file asks for it: a thread that reads one CSV starts much
 * sooner without the others.
 */
const READERS = {
  csv: async () => (await import("./read-csv")).readCsv,
  json: async () => (await import("./read-json")).readJson,
  parquet: async () => (await import("./read-parquet")).readParquet,
  xlsx: async () => (await import("./read-xlsx")).readXlsx,
} satisfies Record<FileFormat, () => Promise<Reader>>;

/** Finds the format of a file by its first bytes, and by its name where they leave a doubt. */
function formatOf(path: string, file: string): FileFormat {
  const handle = openSync(path, "r");
  const head = Buffer.alloc(512);
  const size = readSync(handle, head, 0, head.length, 0);
  closeSync(handle);
  const start = head.subarray(0, size);
  if (start.subarray(0, 4).toString("latin1") === "PAR1") return "parquet";
  if (start[0] === 0x50 && start[1] === 0x4b && start[2] <= 7) return "xlsx";
  if (start[0] === 0xd0 && start[1] === 0xcf && start[2] === 0x11 && start[3] === 0xe0)
    throw new ImportProblem(
      "This is an old workbook (XLS), or one with a password. Save it as XLSX without a password and bring in that file.",
    );
  if (start[0] === 0x1f && start[1] === 0x8b)
    throw new ImportProblem("This file is compressed (gzip). Unpack it and bring in the file inside.");
  const text = start
    .toString("utf8")
    .replace(/^\ufeff/, "")
    .trimStart();
  if (text.startsWith("{") || (text.startsWith("[") && !/\.(csv|tsv|txt)$/i.test(file))) return "json";
  return "csv";
}

/**
 * Reads a file of any known format into the stored rows of table `id`. Rejects with an ImportProblem where
 * the file is broken; then nothing is left behind. `file` is its name.
 */
export async function readTable(
  id: string,
  path: string,
  file: string,
  options: ImportOptions,
  progress: Progress,
): Promise<ReadTable> {
  const read = await READERS[formatOf(path, file)]();
  return read(id, path, options, progress);
}
