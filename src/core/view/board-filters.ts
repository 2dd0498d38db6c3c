import type { DateBucket } from "../base/calendar";
import { sameName } from "../base/names";
import { newFilter } from "../project/defaults";
import { readableName } from "../project/names";
import { offeredColumns } from "../project/offered";
import type { Board, Control, Project } from "../project/schema";
import { allOf, type FilterOfBoard } from "./settings";

/** A filter that a board can have: the column it is of, in which step, and what it is called. */
export interface OfferedFilter {
  table: string;
  column: string;
  by?: "year";
  /** How it is set at first: numbers and timestamps as a stretch. */
  as: FilterOfBoard["as"];
  /** What the control is called at first. */
  label: string;
  /** Which column it is, told apart where several tables have one of the name. */
  text: string;
  /** Whether a visual of the board measures its table. */
  isNear: boolean;
}

/**
 * The filters that a board can have and has not: first the columns that its visuals are split by, then the
 * others of the tables that they measure.
 */
export function offeredFilters(
  project: Pick<Project, "tables" | "links" | "measures" | "inputs" | "visuals" | "conventions">,
  { tiles, controls }: Pick<Board, "tiles" | "controls">,
): OfferedFilter[] {
  const shown = new Set(tiles.flatMap((t) => (t.type === "visual" ? t.visual : [])));
  const visuals = project.visuals.filter((v) => shown.has(v.id));
  const measured = new Set(visuals.map((v) => v.value));
  const splits = visuals.flatMap((v) => [v.split, v.series].flatMap((s) => s?.column ?? []));
  const near = project.measures.flatMap((m) => (measured.has(m.id) && m.table !== null ? m.table : []));
  const has = (table: string, column: string) =>
    controls.some(
      (c: Control) => c.type === "filter" && sameName(c.table, table) && sameName(c.column, column),
    );
  const all = project.tables.flatMap((t): OfferedFilter[] =>
    offeredColumns(project, t.name)
      .filter((c) => c.own && !has(t.name, c.column))
      .map((c) => ({
        table: t.name,
        column: c.column,
        ...(c.type === "date" ? { by: "year" as const } : {}),
        as: c.type === "number" || c.type === "timestamp" ? "stretch" : "buttons",
        label: c.type === "date" ? stepLabel("year") : readableName(c.column),
        text: `${project.tables.length > 1 ? `${t.name} · ` : ""}${c.column}${c.type === "date" ? " by year" : ""}`,
        isNear: near.some((name) => sameName(name, t.name)),
      })),
  );
  const rank = ({ table, column, isNear }: OfferedFilter) =>
    isNear && splits.some((s) => sameName(s, column) || sameName(s, `${table}.${column}`))
      ? 0
      : isNear
        ? 1
        : 2;
  return all.toSorted((a, b) => rank(a) - rank(b));
}

/** What a filter of dates is called that is listed by such steps. */
export const stepLabel = (by: DateBucket): string => by[0].toUpperCase() + by.slice(1);

/** The label of a filter of dates after its steps change: it follows them until somebody writes another. */
export const labelAfter = ({ label, by = "year" }: FilterOfBoard, next: DateBucket): string =>
  label === stepLabel(by) ? stepLabel(next) : label;

/** The control for an offered filter. Of years one is looked at, as a rule; of other values some. */
export const filterOffered = ({ table, column, by, as, label }: OfferedFilter, id: string): FilterOfBoard =>
  newFilter({ id, label, table, column, as, begins: allOf({ as }), ...(by ? { by, many: false } : {}) });
