import type { NumberFormat } from "../base/number-format";
import { own } from "../base/own";
import type { Value } from "../base/value";
import type { CategoryPlaces, Result } from "../plan/query";
import { colourOfCategory } from "../project/categories";
import type { Named } from "../project/names";
import type { ColumnCategories, Measure, Visual } from "../project/schema";
import { bucketLabels, wordingOf } from "./key-labels";
import { categoryKey, type RowKey, rowKey } from "./row-key";
import type { VisualData, VisualRow } from "./visual-data";

/**
 * The columns of an answer that are measures: a measure may be called like the column that it is split by.
 */
export const measureColumns = (result: Result, visual: Visual) =>
  result.columns.slice(result.crossed ? 2 : visual.split ? 1 : 0);

/** A value as a number: true and false are 1 and 0, and null is what is none. */
export const asNumber = (value: Value | undefined): number | null =>
  typeof value === "number" ? value : typeof value === "boolean" ? Number(value) : null;

/** The key of a row of a split: of its category, or of what stands for none. */
function keyOf(category: Value, other: boolean, none: boolean): RowKey {
  if (other) return rowKey({ type: "other" });
  return none ? rowKey({ type: "no match" }) : categoryKey(category);
}

/**
 * What a row of a split stands for, and where: empty categories, those without a match and those that are at
 * home nowhere stand after all others.
 */
function categoryOf(
  at: number,
  value: Value,
  { other, none, places }: { other: boolean; none: boolean; places: CategoryPlaces | undefined },
  said: ColumnCategories | null,
): Pick<VisualRow, "key" | "place" | "color"> {
  const key = keyOf(value, other, none);
  if (other) return { key, place: null, color: null };
  const after = places?.of ?? 0;
  const known = none ? after + 1 : value === null ? after : (places?.at[at] ?? after + 2 + at);
  // Of too many categories none has a place.
  const place = after === 0 ? null : known;
  return { key, place, color: none ? null : colourOfCategory(said, value) };
}

/** The rows of an answer with one split or none. */
export function plainRows(
  visual: Visual,
  project: Named,
  result: Result,
  {
    columnOf,
    formatOf,
  }: { columnOf: (id: string | null) => Value[]; formatOf: (measure: Measure) => NumberFormat },
  said: ColumnCategories | null,
): VisualRow[] {
  const measures = [visual.value, ...visual.more].flatMap(
    (id) => project.measures.find((m) => m.id === id) ?? [],
  );
  const wording = wordingOf(project);
  const labelFor = bucketLabels(visual.split, visual.split ? result.columns[0].values : [], wording);
  const measured = measureColumns(result, visual);
  const extras = project.measures.filter((m) => measured.some((c) => c.name === m.name));
  const row = (
    i: number,
    category: Pick<VisualRow, "key" | "place" | "color">,
    label: string,
    value: Value,
    groups: number,
  ): VisualRow => ({
    ...category,
    label,
    value: asNumber(value),
    cells: visual.split && visual.more.length ? measures.map((m) => asNumber(columnOf(m.id)[i])) : [],
    second: asNumber(columnOf(visual.second)[i]),
    headSize: asNumber(columnOf(visual.headSize)[i]),
    also: Object.fromEntries(extras.map((m) => [m.id, columnOf(m.id)[i] ?? null])),
    groups,
  });
  // Without a split, several measures are the rows themselves.
  if (!visual.split)
    return measures.map((m, place) => ({
      ...row(
        0,
        {
          key: rowKey(measures.length > 1 ? { type: "measure", id: m.id } : { type: "whole" }),
          place,
          color: null,
        },
        m.label,
        columnOf(m.id)[0],
        0,
      ),
      format: formatOf(m),
    }));
  return result.columns[0].values.map((key, i) => {
    const other = result.others?.row === i;
    const none = result.noMatch?.row === i;
    const label = other ? wording.words.other : none ? wording.words.noMatch : labelFor(key);
    const groups = other ? (result.others?.groups ?? 0) : 0;
    const category = categoryOf(i, key, { other, none, places: result.places[0] }, said);
    return row(i, category, label, columnOf(visual.value)[i], groups);
  });
}

/** The rows of an answer with two splits, a cell for each of the series. */
export function crossedRows(
  visual: Visual,
  project: Named,
  result: Result,
  crossed: NonNullable<Result["crossed"]>,
  name: string,
  said: (ColumnCategories | null)[],
): Pick<VisualData, "rows" | "series"> {
  const { splits, at } = crossed;
  const wording = wordingOf(project);
  const values = measureColumns(result, visual).find((c) => c.name === name)?.values ?? [];
  const entries = splits.map((side, k) => {
    const split = k === 0 ? visual.split : visual.series;
    const labelFor = bucketLabels(split, side.keys, wording);
    return side.keys.map((key, i) => {
      const other = side.others?.at === i;
      const none = side.noMatch?.at === i;
      return {
        ...categoryOf(i, key, { other, none, places: result.places[k] }, said[k]),
        label: other ? wording.words.other : none ? wording.words.noMatch : labelFor(key),
        total: asNumber(own(side.totals, name)?.[i]),
        groups: other ? (side.others?.groups ?? 0) : 0,
      };
    });
  });
  const rows = entries[0].map(({ total, ...entry }, i): VisualRow => {
    const also = Object.fromEntries(
      project.measures
        .filter((m) => Object.hasOwn(splits[0].totals, m.name))
        .map((m) => [m.id, splits[0].totals[m.name][i]]),
    );
    return { ...entry, value: total, cells: entries[1].map(() => null), second: null, headSize: null, also };
  });
  for (const [i, [a, b]] of at.entries()) rows[a].cells[b] = asNumber(values[i]);
  return { rows, series: entries[1] };
}
