import type { Value } from "@/core/base/value";
import { isListFilter, listedIn } from "@/core/plan/list-filter";
import type { Filter, ListFilter } from "@/core/plan/query";
import { keyLabel } from "./key-labels";

function written(value: Value | undefined): string {
  if (value === null || value === undefined) return "(none)";
  if (typeof value === "boolean") return value ? "yes" : "no";
  return String(value);
}

function relativeText({
  unit,
  from,
  to,
  anchor,
}: Extract<Filter, { relative: unknown }>["relative"]): string {
  const count = to - from + 1;
  const units = count === 1 ? unit : `${count} ${unit}s`;
  if (anchor === "newest") {
    // What is counted from the newest row holds its own stretch, or stands before that.
    if (to === 0) return `the last ${units} of its dates`;
    return to === -1
      ? `the ${units} before the last of its dates`
      : `${unit}s ${from} to ${to} from the last of its dates`;
  }
  if (from === 0 && to === 0) return `this ${unit}`;
  if (to === 0) return `the last ${units} with the present one`;
  return to === -1 ? `the last ${units}` : `${unit}s ${from} to ${to}`;
}

function listText(filter: ListFilter): string {
  const { column, by, noMatch } = filter;
  const named = [...listedIn(filter).map((value) => keyLabel(value, by)), ...(noMatch ? ["(no match)"] : [])];
  const isKept = "in" in filter;
  if (named.length === 0) return isKept ? `${column}: none` : `${column}: all`;
  if (isKept) return named.length <= 2 ? named.join(" and ") : `${named.length} of ${column}`;
  return named.length <= 2
    ? `${column} without ${named.join(" and ")}`
    : `${column} without ${named.length} values`;
}

/**
 * A filter in words, as it stands in a sentence: "route North Quay and Old Pier", "date: the last 3 months".
 */
export function filterText(filter: Filter): string {
  const { column } = filter;
  if (isListFilter(filter)) return listText(filter);
  if ("contains" in filter) return `${column} with “${filter.contains}”`;
  if ("isNull" in filter) return `${column} ${filter.isNull ? "empty" : "filled"}`;
  if ("relative" in filter) return `${column}: ${relativeText(filter.relative)}`;
  const { from, to } = filter;
  if (from != null && to != null) return `${column} ${written(from)} to ${written(to)}`;
  return from != null
    ? `${column} from ${written(from)}`
    : `${column} up to ${written(to) === "(none)" ? "…" : written(to)}`;
}
