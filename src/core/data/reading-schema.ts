import { z } from "zod";

/** How the cells of a column are read: its type, and where it matters the decimal mark or the order of a date's parts. */
export const readingSchema = z.object({
  type: z.enum(["number", "text", "boolean", "date", "timestamp"]),
  decimal: z.enum([".", ","]).optional(),
  dateOrder: z.enum(["ymd", "dmy", "mdy"]).optional(),
});
export type Reading = z.infer<typeof readingSchema>;
