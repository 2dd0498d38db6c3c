import type { Result } from "@/core/plan/query";
import { wordsOf } from "@/core/project/conventions";
import type { Project, Visual } from "@/core/project/schema";
import type { CavloNumbers, CavloValue } from "./public";

/**
 * The numbers of a visual as they were computed, a row a group; the row of others, and that of rows which
 * a link
 * finds no match for, are called so.
 */
export function numbersIn(
  { name, split }: Pick<Visual, "name" | "split">,
  { columns, rows, others, noMatch, crossed }: Result,
  project: Pick<Project, "conventions">,
): CavloNumbers {
  const words = wordsOf(project);
  const splits = crossed ? 2 : split ? 1 : 0;
  const named = (row: number, column: number): CavloValue | undefined => {
    const at = crossed ? crossed.at[row][column] : row;
    const of = crossed ? crossed.splits[column] : null;
    if ((of ? of.others?.at : others?.row) === at) return words.other;
    if ((of ? of.noMatch?.at : noMatch?.row) === at) return words.noMatch;
    return undefined;
  };
  return {
    visual: name,
    columns: columns.map((c) => c.name),
    rows: Array.from({ length: rows }, (_, row) =>
      columns.map((c, column) => (column < splits ? named(row, column) : undefined) ?? c.values[row] ?? null),
    ),
  };
}
