import type { Value } from "../base/value";
import { columnFor, placesOf } from "../formula/meeting";
import type { Query, QueryInput } from "../plan/query";
import { type Named, scopeOf } from "../project/names";
import { measuresOf } from "../project/roles";
import type { Visual } from "../project/schema";
import { templatesName } from "../project/templates";
import { spoken } from "./spoken";

/** More series than this are put together as Other. */
export const SERIES_MOST = 7;

/** The measures of a project that a template or a phrase of the visual needs besides its value. */
function neededMeasures(visual: Visual, project: Named): string[] {
  const wanted = new Set(measuresOf(visual));
  const phrases = project.measures.filter((m) => wanted.has(m.id)).map((m) => m.name);
  const named = project.measures.filter((m) => templatesName(visual, "measure", m.name)).map((m) => m.name);
  return [...new Set([...phrases, ...named])];
}

/**
 * Whether a filter's column (`table.column`, or a bare name) is one of a table's own, or means one that it
 * reaches or meets.
 */
function appliesTo(table: string, column: string, project: Named): boolean {
  const scope = scopeOf(project);
  const places = placesOf(scope, table, column);
  return places.length === 1 && columnFor(scope, table, places[0]) !== null;
}

/**
 * The query that answers a visual's sentence, or null while the sentence lacks its value. `filters` and
 * `inputs` are those of the board it stands on; filters on columns that the value's table neither has nor
 * reaches do not apply.
 */
export function toQuery(
  whole: Visual,
  project: Named,
  filters: Query["filters"] = [],
  inputs: Record<string, Value> = {},
): QueryInput | null {
  const visual = spoken(whole);
  const value = project.measures.find((m) => m.id === visual.value);
  if (!value) return null;
  const shared = filters.filter((f) => value.table !== null && appliesTo(value.table, f.column, project));
  const order =
    visual.order.by === "value"
      ? { by: value.name, order: visual.order.order }
      : { by: "split", order: visual.order.order };
  return {
    measures: neededMeasures(visual, project).map((id) => ({ id })),
    splits: [visual.split, visual.series].filter((split) => split !== null),
    filters: [...visual.filters, ...shared],
    inputs,
    ...(visual.split ? { sort: order } : {}),
    ...(visual.split && visual.keep ? { keep: visual.keep } : {}),
    // A picture tells few series apart: the largest keep their own place.
    ...(visual.series
      ? {
          series: {
            sort: visual.series.by ? { by: "split", order: "asc" } : { by: value.name, order: "desc" },
            keep: { first: SERIES_MOST, others: true },
          },
        }
      : {}),
  };
}
