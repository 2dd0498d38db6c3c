import { z } from "zod";
import { ENCODINGS, type FileFormat, keysOf, MOST_ABOVE, SEPARATORS } from "@/core/data/file-formats";
import type { Progress } from "./progress";
import type { ReadColumns } from "./table-builder";

/** How a file is to be read where the person said so; the rest is detected. */
export const importOptionsSchema = z.object({
  encoding: z.enum(keysOf(ENCODINGS)).optional(),
  separator: z.enum(keysOf(SEPARATORS)).optional(),
  header: z.union([z.boolean(), z.enum(["true", "false"]).transform((t) => t === "true")]).optional(),
  /** How many rows above the table are left out, empty lines aside. */
  above: z
    .union([
      z.int().min(0).max(MOST_ABOVE),
      z
        .string()
        .regex(/^\d{1,3}$/)
        .transform(Number),
    ])
    .optional(),
  sheet: z.string().max(300).optional(),
});
/** What a person has said of how a file is to be read. */
export type ImportOptions = z.infer<typeof importOptionsSchema>;

/** A file that was read into a stored table: what is in it, and how it was read. */
export interface ReadTable extends ReadColumns {
  rows: number;
  source: {
    format: FileFormat;
    encoding?: string;
    separator?: string;
    header?: boolean;
    above?: number;
    sheet?: string;
    sheets?: string[];
  };
}

/** Reads a file into the stored rows of table `id`. `progress` hears the share done, 0 to 1. */
export type Reader = (
  id: string,
  path: string,
  options: ImportOptions,
  progress: Progress,
) => Promise<ReadTable>;
