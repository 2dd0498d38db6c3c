import type { DateBucket } from "../base/calendar";
import { sameName } from "../base/names";
import { checkFormula } from "../formula/check";
import { tablesOf } from "../formula/expr";
import { reachedFrom } from "../formula/links";
import { placesOf } from "../formula/meeting";
import { newFilter } from "../project/defaults";
import { homeTableOf, homeTableOfVisual } from "../project/home-table";
import { readableName, scopeOf } from "../project/names";
import { offeredColumns } from "../project/offered";
import { measuresOf } from "../project/roles";
import type { Board, Control, Measure, Project } from "../project/schema";
import { allOf, type FilterOfBoard } from "./settings";
import { measuresOfText } from "./text-names";

type Whole = Pick<Project, "tables" | "links" | "measures" | "inputs" | "visuals" | "conventions">;

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
  /** Whether its table stands on the board: measured there, or reached from such a table through links. */
  isNear: boolean;
}

/** The tables that a board's visuals and texts measure, then those that links lead to from them. */
function tablesOn(project: Whole, tiles: Board["tiles"]): { measured: string[]; reached: string[] } {
  const shown = tiles.flatMap((tile): (Measure | undefined)[] => {
    if (tile.type === "text") return measuresOfText(tile, project);
    const visual = tile.type === "visual" && project.visuals.find((v) => v.id === tile.visual);
    return visual ? measuresOf(visual).map((id) => project.measures.find((m) => m.id === id)) : [];
  });
  const measured = [...new Set(shown)].flatMap((measure) => {
    if (!measure) return [];
    const { expr } = checkFormula(measure.formula, scopeOf(project), measure.table, "group", measure.name);
    return [homeTableOf(measure, project) ?? [], expr ? tablesOf(expr) : []].flat();
  });
  return { measured, reached: measured.flatMap((table) => reachedFrom(project.links, table)) };
}

/**
 * The filters that a board can have and has not: first the columns that its visuals are split by, then the
 * others of the tables that they measure, then of those that links lead to.
 */
export function offeredFilters(
  project: Whole,
  { tiles, controls }: Pick<Board, "tiles" | "controls">,
): OfferedFilter[] {
  const shown = new Set(tiles.flatMap((t) => (t.type === "visual" ? t.visual : [])));
  const visuals = project.visuals.filter((v) => shown.has(v.id));
  const splits = visuals.flatMap((v) => {
    const home = homeTableOfVisual(v, project);
    const named = home === null ? [] : [v.split, v.series].flatMap((s) => s?.column ?? []);
    return named.flatMap((name) => placesOf(scopeOf(project), home ?? "", name));
  });
  const { measured, reached } = tablesOn(project, tiles);
  const isOf = (tables: string[], table: string) => tables.some((name) => sameName(name, table));
  // The key of a link says what the column says that is linked to it.
  const isKey = (table: string, column: string) =>
    project.links.some((l) => isOf(measured, l.table) && sameName(l.to, table) && sameName(l.key, column));
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
        isNear: isOf(measured, t.name) || (isOf(reached, t.name) && !isKey(t.name, c.column)),
      })),
  );
  const rank = ({ table, column, isNear }: OfferedFilter) => {
    if (!isNear) return 3;
    if (splits.some((s) => sameName(s.table, table) && sameName(s.column, column))) return 0;
    return isOf(measured, table) ? 1 : 2;
  };
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
