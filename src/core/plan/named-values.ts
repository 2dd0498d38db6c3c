import { z } from "zod";
import { cutText } from "../base/cut-text";
import { saidOf } from "./first-issue";

/**
 * A record by names of somebody's making, each at most `longest` long. Unlike zod's own, it keeps names that
 * mean something to the language.
 */
export function namedValues<T extends z.ZodType>(value: T, longest: number) {
  return z
    .custom<Record<string, z.input<T>>>(
      (x) => typeof x === "object" && x !== null && !Array.isArray(x),
      "This is no list of names with values.",
    )
    .transform((record, context) => {
      const entries = Object.entries(record).map(([name, given]) => {
        if (name.length > longest)
          context.addIssue({
            code: "custom",
            message: `A name has at most ${longest} characters.`,
            path: [cutText(name, 60)],
          });
        const parsed = value.safeParse(given);
        if (!parsed.success)
          for (const { path, message } of parsed.error.issues.map(saidOf))
            context.addIssue({ code: "custom", message, path: [name, ...path] });
        return [name, parsed.data] as const;
      });
      return Object.fromEntries(entries) as Record<string, z.output<T>>;
    });
}
