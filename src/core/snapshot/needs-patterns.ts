import type { Project } from "../project/schema";

/**
 * Whether a project's formulas match regular expressions or read dates by patterns, or columns are read by
 * one: what does so is large, and is fetched only then.
 */
export function needsPatterns({ measures, tables }: Pick<Project, "measures" | "tables">): boolean {
  const formulas = [...measures, ...tables.flatMap((t) => t.derived)].map((f) => f.formula);
  const readings = tables.flatMap((t) => t.columns.map((c) => c.reading));
  return (
    formulas.some((formula) => /regexp_|to_date|to_timestamp/i.test(formula)) ||
    readings.some((reading) => reading.pattern !== undefined)
  );
}
