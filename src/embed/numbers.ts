import type { Result } from "@/core/plan/query";
import type { Visual } from "@/core/project/schema";
import type { CavloNumbers } from "./public";

/** The numbers of a visual as they were computed, a row a group; Other stands in the last row. */
export const numbersIn = ({ name }: Pick<Visual, "name">, { columns, rows }: Result): CavloNumbers => ({
  visual: name,
  columns: columns.map((c) => c.name),
  rows: Array.from({ length: rows }, (_, i) => columns.map((c) => c.values[i] ?? null)),
});
