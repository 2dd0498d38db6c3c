import { z } from "zod";
import { filterSchema } from "@/core/plan/query";

/** A list as JSON in an address; none where nothing is said. `what` says of what it is. */
export const listInAddress = (what: string) =>
  z
    .string()
    .max(20_000)
    .default("[]")
    .transform((text, context) => {
      try {
        return JSON.parse(text) as unknown;
      } catch {
        context.addIssue(`${what} not valid JSON.`);
        return z.NEVER;
      }
    });

/** Filters as JSON in an address. */
export const filtersInAddress = listInAddress("The filters are").pipe(z.array(filterSchema).max(50));

/** Whether hidden columns are left out: "1" where they are. */
export const visibleInAddress = z
  .literal("1")
  .optional()
  .transform((text) => text === "1");
