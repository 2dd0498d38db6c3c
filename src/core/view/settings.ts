import type { Value } from "../base/value";
import type { Filter } from "../plan/query";
import type { Control, Setting } from "../project/schema";

/** A control that filters. */
export type FilterOfBoard = Extract<Control, { type: "filter" }>;

/** The values that a setting lists; none where it is of another form. */
export const valuesIn = (setting: Setting): Value[] => ("in" in setting ? setting.in : []);

/** Whether a setting keeps all. */
export function keepsAll(setting: Setting): boolean {
  if ("in" in setting) return setting.in.length === 0;
  if ("contains" in setting) return setting.contains.trim() === "";
  return "from" in setting && setting.from === null && setting.to === null;
}

/** The setting of a filter's form that keeps all. */
export function allOf({ as }: Pick<FilterOfBoard, "as">): Setting {
  if (as === "stretch") return { from: null, to: null };
  return as === "text" ? { contains: "" } : { in: [] };
}

/** Whether two settings keep the same; the order of values has no say. */
export function isSameSetting(a: Setting, b: Setting): boolean {
  if (keepsAll(a) || keepsAll(b)) return keepsAll(a) === keepsAll(b);
  if (!("in" in a) || !("in" in b)) return JSON.stringify(a) === JSON.stringify(b);
  return a.in.length === b.in.length && a.in.every((v) => b.in.includes(v));
}

/** Whether a setting is of the form that a filter has. */
export const isOfForm = ({ as }: Pick<FilterOfBoard, "as">, setting: Setting): boolean =>
  as === "stretch"
    ? "from" in setting || "relative" in setting
    : as === "text"
      ? "contains" in setting
      : "in" in setting;

/** A column of a filter as queries name it. */
export const columnOf = ({ table, column }: Pick<FilterOfBoard, "table" | "column">): string =>
  `${table}.${column}`;

/** The filter that a control asks for with a setting; null where it keeps all. */
export function filterOfSetting(control: FilterOfBoard, setting: Setting): Filter | null {
  if (keepsAll(setting)) return null;
  const column = columnOf(control);
  if ("in" in setting) return { column, ...(control.by ? { by: control.by } : {}), in: setting.in };
  if ("contains" in setting) return { column, contains: setting.contains.trim() };
  if ("relative" in setting) return { column, relative: setting.relative };
  const { from, to } = setting;
  return { column, ...(from === null ? {} : { from }), ...(to === null ? {} : { to }) };
}
