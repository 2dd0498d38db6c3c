import { z } from "zod";

/**
 * How the cells of a column are read: its type, and where it matters the decimal mark, the order of a date's
 * parts, a pattern of one's own for dates, the unit of numbers that count from 1970 on, or words for nothing
 * that are values.
 */
export const readingSchema = z.object({
  type: z.enum(["number", "text", "boolean", "date", "timestamp"]),
  decimal: z.enum([".", ","]).optional(),
  dateOrder: z.enum(["ymd", "dmy", "mdy"]).optional(),
  pattern: z.string().min(1).max(60).optional(),
  epoch: z.enum(["s", "ms"]).optional(),
  /** Words for nothing that are values of this column of texts: a category “None”. */
  kept: z.array(z.string().min(1).max(11)).max(20).optional(),
});
/** How the texts of a column become values. */
export type Reading = z.infer<typeof readingSchema>;
