import { closeSync, fsyncSync, openSync, readFileSync, renameSync, writeSync } from "node:fs";
import { z } from "zod";
import { readingSchema } from "@/core/data/reading-schema";
import { tableFiles } from "./table-files";

const sumsSchema = z.object({
  size: z.int().min(0),
  stretch: z.int().positive(),
  sums: z.array(z.int().min(0)),
});

/** What stands beside a table's rows so that it can be known again, whatever became of the database. */
const aboutSchema = z.object({
  format: z.literal("cavlo-table-1"),
  id: z.string(),
  name: z.string(),
  project: z.object({ id: z.string(), name: z.string() }),
  rows: z.int().min(0),
  columns: z.array(z.object({ name: z.string(), reading: readingSchema })),
  createdAt: z.string(),
  sums: z.object({ rows: sumsSchema, source: sumsSchema.nullable() }),
});
/** The note beside a table's rows. */
export type AboutTable = z.infer<typeof aboutSchema>;

/** Writes a file so that it is seen whole or not at all. */
export function writeWhole(path: string, content: string): void {
  const part = `${path}.part`;
  const handle = openSync(part, "w");
  try {
    writeSync(handle, content);
    fsyncSync(handle);
  } finally {
    closeSync(handle);
  }
  renameSync(part, path);
}

/** Writes the note beside a table's rows: what it is, whose, and its checksums. */
export function writeAbout(about: Omit<AboutTable, "format">): void {
  writeWhole(tableFiles(about.id).about, `${JSON.stringify({ format: "cavlo-table-1", ...about })}\n`);
}

/** What a file says of a table, or null where there is none that can be read. */
export function readAbout(path: string): AboutTable | null {
  try {
    const parsed = aboutSchema.safeParse(JSON.parse(readFileSync(path, "utf8")));
    return parsed.success ? parsed.data : null;
  } catch {
    return null;
  }
}
