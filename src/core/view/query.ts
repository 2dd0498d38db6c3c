import type { Value } from "../base/value";
import type { Query, QueryInput } from "../plan/query";
import { type Categorized, categoriesOfSplit } from "../project/categories";
import { homeTableOf } from "../project/home-table";
import type { Named } from "../project/names";
import { measuresOf, orderMeasuresOf, ownNumbersOf, rowMeasuresOf } from "../project/roles";
import type { Measure, Order, Visual } from "../project/schema";
import { templatesName } from "../project/templates";
import { answersTo } from "./picks";
import { spoken } from "./spoken";

/** More series than this are put together as Other. */
export const SERIES_MOST = 7;

/**
 * The measures of a project that a visual needs: those with a value for each row, its own first, in whose
 * terms the query is written; those that rows are held against or put in order by, where the split reaches
 * them; and those of which phrases and templates take the value over all rows.
 */
function neededMeasures(
  visual: Visual,
  project: Named,
): { rows: string[]; besides: string[]; totals: string[] } {
  const nameOf = (id: string) => project.measures.find((m) => m.id === id)?.name ?? [];
  const rows = [...new Set(rowMeasuresOf(visual).flatMap(nameOf))];
  const named = project.measures.filter((m) => templatesName(visual, "measure", m.name)).map((m) => m.name);
  const asked = [...ownNumbersOf(visual), ...orderMeasuresOf(visual)];
  const besides = [...new Set(asked.flatMap(nameOf))].filter((name) => !rows.includes(name));
  const totals = new Set([...measuresOf(visual).flatMap(nameOf), ...named]);
  // What a text names is asked over all rows too: a split may not reach it.
  const answered = new Set([...rows, ...besides.filter((name) => !named.includes(name))]);
  return { rows, besides, totals: [...totals].filter((name) => !answered.has(name)) };
}

type Sort = NonNullable<QueryInput["sort"]>;

/**
 * What a split is put in order by; null where it names a measure that is gone. A column that the value's
 * table neither has nor reaches any more leaves rows in the order of their values.
 */
function sortOf(order: Order, split: Visual["split"], value: Measure, project: Categorized): Sort | null {
  const { by } = order;
  if (by === "split") {
    const values = categoriesOfSplit(project, homeTableOf(value, project), split)?.order ?? [];
    return { by, order: order.order, ...(values.length ? { values } : {}) };
  }
  if (by === "value") return { by: value.name, order: order.order };
  if ("column" in by)
    return {
      by: answersTo({ value: value.id }, by.column, project) ? by : value.name,
      order: order.order,
    };
  const measure = project.measures.find((m) => m.id === by.measure);
  return measure ? { by: measure.name, order: order.order } : null;
}

/**
 * The query that answers a visual's sentence, or null while the sentence lacks its value. `filters` and
 * `inputs` are those of the board it stands on; filters on columns that the value's table neither has nor
 * reaches do not apply.
 */
export function toQuery(
  whole: Visual,
  project: Categorized,
  filters: Query["filters"] = [],
  inputs: Record<string, Value> = {},
): QueryInput | null {
  const visual = spoken(whole);
  const value = project.measures.find((m) => m.id === visual.value);
  if (!value) return null;
  const shared = filters.filter((f) => answersTo(visual, f.column, project));
  const sort = sortOf(visual.order, visual.split, value, project);
  const seriesOrder: Order =
    visual.seriesOrder ??
    (visual.series?.by ? { by: "split", order: "asc" } : { by: "value", order: "desc" });
  const seriesSort = sortOf(seriesOrder, visual.series, value, project);
  const { rows, besides, totals } = neededMeasures(visual, project);
  const home = homeTableOf(value, project);
  return {
    // Splits and filters are in its terms; a measure that only puts others together names none itself.
    ...(value.table === null && home !== null ? { table: home } : {}),
    measures: rows.map((id) => ({ id })),
    ...(besides.length ? { besides: besides.map((id) => ({ id })) } : {}),
    ...(totals.length ? { totals: totals.map((id) => ({ id })) } : {}),
    splits: [visual.split, visual.series].filter((split) => split !== null),
    filters: [...visual.filters, ...shared],
    ...(shared.length ? { atRest: visual.filters } : {}),
    inputs,
    ...(visual.split && sort ? { sort } : {}),
    ...(visual.split && visual.keep ? { keep: visual.keep } : {}),
    // A picture tells few series apart: the largest keep their own place.
    ...(visual.series
      ? {
          series: {
            ...(seriesSort ? { sort: seriesSort } : {}),
            keep: { first: SERIES_MOST, others: true },
          },
        }
      : {}),
  };
}
