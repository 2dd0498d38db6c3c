import { z } from "zod";
import { filterSchema } from "@/core/plan/query";

/** Filters as JSON in an address. */
export const filtersInAddress = z
  .string()
  .max(20_000)
  .default("[]")
  .transform((text, context) => {
    try {
      return JSON.parse(text) as unknown;
    } catch {
      context.addIssue("The filters are not valid JSON.");
      return z.NEVER;
    }
  })
  .pipe(z.array(filterSchema).max(50));

/** Whether hidden columns are left out: "1" where they are. */
export const visibleInAddress = z
  .literal("1")
  .optional()
  .transform((text) => text === "1");
