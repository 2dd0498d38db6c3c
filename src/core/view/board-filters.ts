import { sameName } from "../base/names";
import { offeredColumns } from "../project/offered";
import type { Board, Control, Project } from "../project/schema";

/** A filter that a board can have: the column it is of, in which step, and what it is called. */
export interface OfferedFilter {
  table: string;
  column: string;
  by?: "year";
  /** What the control is called at first. */
  label: string;
  /** Which column it is, told apart where several tables have one of the name. */
  text: string;
  /** Whether a visual of the board measures its table. */
  isNear: boolean;
}

const readable = (name: string) => {
  const words = name.replaceAll("_", " ").trim() || name;
  return words.charAt(0).toUpperCase() + words.slice(1);
};

/** The filters that a board can have and has not: columns of tables that its visuals measure come first. */
export function offeredFilters(
  project: Pick<Project, "tables" | "links" | "measures" | "inputs" | "visuals" | "conventions">,
  { tiles, controls }: Pick<Board, "tiles" | "controls">,
): OfferedFilter[] {
  const shown = new Set(tiles.flatMap((t) => (t.type === "visual" ? t.visual : [])));
  const measured = new Set(project.visuals.flatMap((v) => (shown.has(v.id) ? v.value : [])));
  const near = project.measures.flatMap((m) => (measured.has(m.id) && m.table !== null ? m.table : []));
  const has = (table: string, column: string) =>
    controls.some(
      (c: Control) => c.type === "filter" && sameName(c.table, table) && sameName(c.column, column),
    );
  const all = project.tables.flatMap((t): OfferedFilter[] =>
    offeredColumns(project, t.name)
      .filter((c) => c.own && c.type !== "number" && c.type !== "timestamp" && !has(t.name, c.column))
      .map((c) => ({
        table: t.name,
        column: c.column,
        ...(c.type === "date" ? { by: "year" as const } : {}),
        label: c.type === "date" ? "Year" : readable(c.column),
        text: `${project.tables.length > 1 ? `${t.name} · ` : ""}${c.column}${c.type === "date" ? " by year" : ""}`,
        isNear: near.some((name) => sameName(name, t.name)),
      })),
  );
  return [...all.filter((f) => f.isNear), ...all.filter((f) => !f.isNear)];
}
