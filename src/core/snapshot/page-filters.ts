import { DATE_BUCKETS, type DateBucket } from "../base/calendar";
import { findNamed, sameName } from "../base/names";
import { own } from "../base/own";
import type { Value } from "../base/value";
import { placesOf } from "../formula/meeting";
import { inputValue } from "../plan/input-value";
import type { Filter } from "../plan/query";
import { QueryError } from "../plan/query-error";
import { type Named, scopeOf } from "../project/names";
import { offeredColumns } from "../project/offered";
import type { Board, Setting } from "../project/schema";
import { allOf, type FilterOfBoard, isOfForm } from "../view/settings";

/** What a page asked for cannot be done; the message says what, and what there is. */
export class PageAskError extends Error {}

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === "object" && value !== null && !Array.isArray(value);

const isValue = (value: unknown): value is Value =>
  value === null ||
  typeof value === "string" ||
  typeof value === "boolean" ||
  (typeof value === "number" && Number.isFinite(value));

const SHAPES =
  'a list of values, {"from": …, "to": …}, {"not": […]} or {"contains": "…"}, for example {"route": ["North Quay"]}';

/** What a filter says of its column: the part of it besides the column. */
type Said = { in: Value[] } | { not: Value[] } | { contains: string } | { from?: Value; to?: Value };

function saidBy(name: string, wish: unknown): Said {
  const wrong = () => new PageAskError(`filters.${name} is none. Give ${SHAPES}.`);
  if (isValue(wish)) return { in: [wish] };
  const list = (values: unknown): Value[] => {
    if (!Array.isArray(values) || !values.every(isValue)) throw wrong();
    return values;
  };
  if (Array.isArray(wish)) return { in: list(wish) };
  if (!isRecord(wish)) throw wrong();
  if ("in" in wish) return { in: list(wish.in) };
  if ("not" in wish) return { not: list(wish.not) };
  if (typeof wish.contains === "string" && wish.contains !== "") return { contains: wish.contains };
  const { from, to } = wish;
  if ((from === undefined && to === undefined) || !isValue(from ?? null) || !isValue(to ?? null))
    throw wrong();
  return {
    ...(from === undefined || from === null ? {} : { from: from as Value }),
    ...(to === undefined || to === null ? {} : { to: to as Value }),
  };
}

/** A column's name and the stretches of a date in it: "departed by year". */
function bucketed(name: string): { column: string; by?: DateBucket } {
  const found = /^(.+) by (\w+)$/i.exec(name);
  const by = found && DATE_BUCKETS.find((b) => sameName(b, found[2]));
  return found && by ? { column: found[1], by } : { column: name };
}

/** A unit alone means the one date that there is: "year". */
function byUnitAlone(name: string, table: string, project: Named): { column: string; by: DateBucket } | null {
  const by = DATE_BUCKETS.find((b) => sameName(b, name));
  const dates =
    by && offeredColumns(project, table).filter((c) => c.type === "date" || c.type === "timestamp");
  return by && dates && dates.length === 1 ? { column: `${dates[0].table}.${dates[0].column}`, by } : null;
}

/** The column that a name means for a table, as filters name it. */
function columnMeant(name: string, table: string, project: Named): { column: string; by?: DateBucket } {
  const scope = scopeOf(project);
  for (const meant of [{ column: name }, bucketed(name)]) {
    const [place, ...others] = placesOf(scope, table, meant.column);
    if (place && others.length === 0) return { ...meant, column: `${place.table}.${place.column}` };
  }
  const alone = byUnitAlone(name, table, project);
  if (alone) return alone;
  const there = offeredColumns(project, table).map((c) => c.name);
  throw new PageAskError(
    `filters has ${name}, which is no column here. There are ${there.slice(0, 12).join(", ")}.`,
  );
}

/**
 * The filters that a page asks for of a visual, by column. Throws a PageAskError where one means no column
 * or is
 * none.
 */
export function pageFilters(wishes: unknown, table: string | null, project: Named): Filter[] {
  if (wishes === null || wishes === undefined) return [];
  if (!isRecord(wishes)) throw new PageAskError(`filters is no object. Give ${SHAPES} by column.`);
  return Object.entries(wishes).flatMap(([name, wish]): Filter[] => {
    if (table === null) throw new PageAskError(`There is nothing to filter: the visual reads no table.`);
    const said = saidBy(name, wish);
    // An empty list keeps all, as a control of a board does where nothing is chosen.
    if ("in" in said && said.in.length === 0) return [];
    const { column, by } = columnMeant(name, table, project);
    return [{ column, ...(by && ("in" in said || "not" in said) ? { by } : {}), ...said }];
  });
}

/** The control of a board that a name means: by its label, its column, or its column and stretches. */
function controlMeant(name: string, { controls }: Pick<Board, "controls">): FilterOfBoard | undefined {
  const filters = controls.flatMap((c) => (c.type === "filter" ? c : []));
  const names = (c: FilterOfBoard) => {
    const column = [c.column, `${c.table}.${c.column}`];
    return [c.label, ...column, ...(c.by ? [c.by, ...column.map((n) => `${n} by ${c.by}`)] : [])];
  };
  return filters.find((c) => names(c).some((n) => sameName(n, name)));
}

/**
 * What a page asks of a board's filters, as settings by the ids of their controls. Throws a PageAskError
 * where a name means no control, or where the control is set in another form.
 */
export function pageSettings(wishes: unknown, board: Pick<Board, "controls">): Record<string, Setting> {
  if (wishes === null || wishes === undefined) return {};
  if (!isRecord(wishes))
    throw new PageAskError(`filters is no object. Give ${SHAPES} by the names of controls.`);
  const settings = Object.entries(wishes).map(([name, wish]): [string, Setting] => {
    const control = controlMeant(name, board);
    if (!control) {
      const there = board.controls.flatMap((c) => (c.type === "filter" ? c.label : []));
      const has = there.length > 0 ? `It has ${there.join(", ")}.` : "It has none.";
      throw new PageAskError(`filters has ${name}, which is no filter of this board. ${has}`);
    }
    const said = saidBy(name, wish);
    const setting: Setting =
      "in" in said && said.in.length === 0
        ? allOf(control)
        : "contains" in said || "in" in said
          ? said
          : "not" in said
            ? { in: said.not }
            : { from: said.from ?? null, to: said.to ?? null };
    if ("not" in said || !isOfForm(control, setting))
      throw new PageAskError(
        `filters.${name} is of another form than the board's filter ${control.label}, which is set by ${FORMS[control.as]}.`,
      );
    return [control.id, setting];
  });
  return Object.fromEntries(settings);
}

const FORMS: Record<FilterOfBoard["as"], string> = {
  buttons: "a list of values",
  list: "a list of values",
  menu: "a list of values",
  stretch: '{"from": …, "to": …}',
  text: '{"contains": "…"}',
};

/** The values that a page gives inputs, by their names as they are declared. Throws a PageAskError. */
export function pageInputs(wishes: unknown, project: Named): Record<string, Value> {
  if (wishes === null || wishes === undefined) return {};
  if (!isRecord(wishes))
    throw new PageAskError('inputs is no object. Give values by name: {"goal_rate": 0.9}.');
  return Object.fromEntries(
    Object.keys(wishes).map((name): [string, Value] => {
      const input = findNamed(project.inputs, name);
      const value = own(wishes, name);
      if (!input) {
        const there = project.inputs.map((i) => i.name);
        const has = there.length > 0 ? `There are ${there.join(", ")}.` : "There are none.";
        throw new PageAskError(`inputs has ${name}, which is no input here. ${has}`);
      }
      if (!isValue(value)) throw new PageAskError(`inputs.${name} is no value.`);
      try {
        inputValue(value, input.type, input.name);
      } catch (error) {
        throw error instanceof QueryError ? new PageAskError(`inputs: ${error.message}`) : error;
      }
      return [input.name, value];
    }),
  );
}
