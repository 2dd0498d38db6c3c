import type { RE2JS as Library } from "re2js";
import type { Project } from "@/core/project/schema";

/**
 * The library of regular expressions, which few formulas need and which is as large as the engine: the
 * build puts
 * this in its place (scripts/build-embed.mjs), and it is fetched where a formula asks for it.
 */
export let RE2JS: typeof Library;

/** Whether a formula of a project matches regular expressions. */
export const needsPatterns = ({ measures, tables }: Pick<Project, "measures" | "tables">): boolean =>
  [...measures, ...tables.flatMap((t) => t.derived)].some(({ formula }) => /regexp_/i.test(formula));

/** Fetches the library from its address, once. */
export async function loadPatterns(address: string): Promise<void> {
  RE2JS ??= ((await import(/* @vite-ignore */ address)) as { RE2JS: typeof Library }).RE2JS;
}
