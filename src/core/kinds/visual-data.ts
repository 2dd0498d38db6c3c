import { own } from "../data/own";
import type { Query, QueryInput, Result } from "../engine/query";
import { civil, isoWeek, parseIsoDate } from "../formula/calendar";
import { columnFor, placesOf } from "../formula/meeting";
import type { Value } from "../formula/value";
import { measuresOf, type Named, scopeOf } from "../project/names";
import type { Measure, NumberFormat, Source, Visual, Zone } from "../project/schema";
import { namesInTemplate, type TemplateValue } from "../scene/template";
import { hasRole, type RoleId } from "./roles";

export interface VisualRow {
  key: string;
  /** What the row's category is in the data, where it stands for one: what a filter on it asks for. */
  category?: Value;
  label: string;
  value: number | null;
  /** The values of the series, in their order; empty without one. */
  cells: (number | null)[];
  second: number | null;
  headSize: number | null;
  /** What other measures give for this row, by their id: those that rules look at. */
  also: Record<string, Value>;
  /** The format of the row's own measure, where rows are measures. */
  format?: NumberFormat;
  /** How many groups this row stands for when it is Other, else 0. */
  groups: number;
}

/** A row with a value and nothing else. */
export const plainRow = (key: string, label: string, value: number | null, groups = 0): VisualRow => ({
  key,
  label,
  value,
  groups,
  cells: [],
  second: null,
  headSize: null,
  also: {},
});

/** What a kind draws, with every phrase of the sentence resolved to values. */
export interface VisualData {
  rows: VisualRow[];
  /** A second split, or several measures, that each row is divided by. */
  series: { key: string; label: string; total: number | null; groups: number; format?: NumberFormat }[];
  comparison: { value: number | null; label: string } | null;
  second: { label: string; format: NumberFormat } | null;
  headSize: { label: string; format: NumberFormat } | null;
  betterWhen: Measure["betterWhen"];
  total: number | null;
  target: number | null;
  minimum: number | null;
  maximum: number | null;
  zones: Zone[];
  format: NumberFormat;
  valueLabel: string;
  splitLabel: string | null;
  title: string;
  subtitle: string;
  /** What names in templates stand for. */
  names: Record<string, TemplateValue>;
  /** What a reader of the numbers should know besides, such as a filter that leaves a table whole. */
  notes: string[];
  /** What is missing in the sentence, or what went wrong; then nothing is drawn but this. */
  problem: string | null;
}

export const PLAIN_FORMAT: NumberFormat = { style: "number", decimals: 0, units: "none", currency: "EUR", prefix: "", suffix: "", locale: "plain" };
export const PERCENT_FORMAT: NumberFormat = { ...PLAIN_FORMAT, style: "percent", decimals: 0 };
/** The label of the row of those that a link finds no match for. */
export const NO_MATCH_LABEL = "(no match)";
/** More series than this are put together as Other. */
export const SERIES_MOST = 7;
const MONTHS = "Jan Feb Mar Apr May Jun Jul Aug Sep Oct Nov Dec".split(" ");

/** A visual without the phrases that its kind has no role for. */
function spoken(visual: Visual): Visual {
  const of = <T>(role: RoleId, value: T, none: T): T => (hasRole(visual.kind, role) ? value : none);
  const split = of("split", visual.split, null);
  return {
    ...visual,
    split,
    // A series divides the rows of a split, and takes the place of further measures.
    series: split ? of("series", visual.series, null) : null,
    more: of("more", visual.more, []),
    second: of("second", visual.second, null),
    headSize: of("headSize", visual.headSize, null),
    comparison: of("comparison", visual.comparison, null),
    target: of("target", visual.target, null),
    minimum: of("range", visual.minimum, null),
    maximum: of("range", visual.maximum, null),
    keep: of("keep", visual.keep, null),
    order: of("order", visual.order, { by: "split", order: "asc" }),
  };
}

/** The measures of a project that a template or a phrase of the visual needs besides its value. */
function neededMeasures(visual: Visual, project: Named): string[] {
  const wanted = new Set(measuresOf(visual));
  const phrases = project.measures.filter((m) => wanted.has(m.id)).map((m) => m.name);
  const templates = [visual.title, visual.subtitle, ...Object.values(visual.dials).filter((d): d is string => typeof d === "string")];
  const named = templates.flatMap(namesInTemplate).flatMap((n) => project.measures.filter((m) => m.name.toLowerCase() === n.toLowerCase()).map((m) => m.name));
  return [...new Set([...phrases, ...named])];
}

/** Whether a filter's column (`table.column`, or a bare name) is one of a table's own, or means one that it reaches or meets. */
function appliesTo(table: string, column: string, project: Named): boolean {
  const scope = scopeOf(project);
  const places = placesOf(scope, table, column);
  return places.length === 1 && columnFor(scope, table, places[0]) !== null;
}

/**
 * The query that answers a visual's sentence, or null while the sentence lacks its value. `filters` and `inputs` are those
 * of the board it stands on; filters on columns that the value's table neither has nor reaches do not apply.
 */
export function toQuery(whole: Visual, project: Named, filters: Query["filters"] = [], inputs: Record<string, Value> = {}): QueryInput | null {
  const visual = spoken(whole);
  const value = project.measures.find((m) => m.id === visual.value);
  if (!value) return null;
  const shared = filters.filter((f) => value.table !== null && appliesTo(value.table, f.column, project));
  const order = visual.order.by === "value" ? { by: value.name, order: visual.order.order } : { by: "split", order: visual.order.order };
  return {
    measures: neededMeasures(visual, project).map((id) => ({ id })),
    splits: [visual.split, visual.series].filter((split) => split !== null),
    filters: [...visual.filters, ...shared],
    inputs,
    ...(visual.split ? { sort: order } : {}),
    ...(visual.split && visual.keep ? { keep: visual.keep } : {}),
    // A picture tells few series apart: the largest keep their own place.
    ...(visual.series
      ? { series: { sort: visual.series.by ? { by: "split", order: "asc" } : { by: value.name, order: "desc" }, keep: { first: SERIES_MOST, others: true } } }
      : {}),
  };
}

/** How a key of the split is written: dates by their bucket, null as "(none)". */
export function keyLabel(key: Value, bucket: string | undefined): string {
  if (key === null) return "(none)";
  if (typeof key === "boolean") return key ? "yes" : "no";
  const day = bucket && typeof key === "string" ? parseIsoDate(key) : null;
  if (day === null) return String(key);
  const { year, month } = civil(day);
  if (bucket === "year") return String(year);
  if (bucket === "quarter") return `Q${Math.ceil(month / 3)} ${year}`;
  if (bucket === "month") return `${MONTHS[month - 1]} ${year}`;
  if (bucket === "week") return `Week ${isoWeek(day).week}, ${isoWeek(day).year}`;
  return String(key);
}

/** Writes the keys of a split; months and quarters of one year go without the year that they all have. */
function bucketLabels(split: Visual["split"], keys: Value[]): (key: Value) => string {
  const by = split?.by;
  const years = new Set(keys.map((k) => (typeof k === "string" ? k.slice(0, 4) : "")));
  const short = (by === "month" || by === "quarter") && years.size === 1 && keys.length > 1;
  return (key) => {
    const label = keyLabel(key, by);
    return short ? label.replace(/ \d{4}$/, "") : label;
  };
}

/** The columns of an answer that are measures: a measure may be called like the column that it is split by. */
const measureColumns = (result: Result, visual: Visual) => result.columns.slice(result.crossed ? 2 : visual.split ? 1 : 0);

const asNumber = (value: Value | undefined): number | null => (typeof value === "number" ? value : typeof value === "boolean" ? Number(value) : null);

const nothing = (visual: Visual, problem: string): VisualData => ({
  rows: [],
  series: [],
  comparison: null,
  second: null,
  headSize: null,
  betterWhen: "higher",
  total: null,
  target: null,
  minimum: null,
  maximum: null,
  zones: [],
  format: PLAIN_FORMAT,
  valueLabel: "",
  splitLabel: null,
  title: visual.name,
  subtitle: "",
  names: {},
  notes: [],
  problem,
});

const OTHER_KEY = "\u0000other";
const EMPTY_KEY = "\u0000empty";
const NO_MATCH_KEY = "\u0000no match";

/** A key that no other category of the split has: an empty one is not the text "null". */
const keyOf = (key: Value, other: boolean, none: boolean) => (other ? OTHER_KEY : none ? NO_MATCH_KEY : key === null ? EMPTY_KEY : String(key));

/** The rows of an answer with one split or none. */
function plainRows(visual: Visual, project: Named, result: Result, columnOf: (id: string | null) => Value[]): VisualRow[] {
  const measures = [visual.value, ...visual.more].flatMap((id) => project.measures.find((m) => m.id === id) ?? []);
  const labelFor = bucketLabels(visual.split, visual.split ? result.columns[0].values : []);
  const measured = measureColumns(result, visual);
  const extras = project.measures.filter((m) => measured.some((c) => c.name === m.name));
  const row = (i: number, key: string, label: string, value: Value, groups: number): VisualRow => ({
    key,
    label,
    value: asNumber(value),
    cells: visual.split && visual.more.length ? measures.map((m) => asNumber(columnOf(m.id)[i])) : [],
    second: asNumber(columnOf(visual.second)[i]),
    headSize: asNumber(columnOf(visual.headSize)[i]),
    also: Object.fromEntries(extras.map((m) => [m.id, columnOf(m.id)[i] ?? null])),
    groups,
  });
  // Without a split, several measures are the rows themselves.
  if (!visual.split) return measures.map((m) => ({ ...row(0, measures.length > 1 ? m.id : "", m.label, columnOf(m.id)[0], 0), format: m.format }));
  return result.columns[0].values.map((key, i) => {
    const other = result.others?.row === i;
    const none = result.noMatch?.row === i;
    const label = other ? "Other" : none ? NO_MATCH_LABEL : labelFor(key);
    const made = row(i, keyOf(key, other, none), label, columnOf(visual.value)[i], other ? (result.others?.groups ?? 0) : 0);
    return other || none ? made : { ...made, category: key };
  });
}

/** The rows of an answer with two splits, a cell for each of the series. */
function crossedRows(visual: Visual, project: Named, result: Result, crossed: NonNullable<Result["crossed"]>, name: string): Pick<VisualData, "rows" | "series"> {
  const { splits, at } = crossed;
  const values = measureColumns(result, visual).find((c) => c.name === name)?.values ?? [];
  const entries = splits.map((side, k) => {
    const split = k === 0 ? visual.split : visual.series;
    const labelFor = bucketLabels(split, side.keys);
    return side.keys.map((key, i) => {
      const other = side.others?.at === i;
      const none = side.noMatch?.at === i;
      return {
        key: keyOf(key, other, none),
        ...(other || none ? {} : { category: key }),
        label: other ? "Other" : none ? NO_MATCH_LABEL : labelFor(key),
        total: asNumber(own(side.totals, name)?.[i]),
        groups: other ? (side.others?.groups ?? 0) : 0,
      };
    });
  });
  const rows = entries[0].map(({ total, ...entry }, i): VisualRow => {
    const also = Object.fromEntries(project.measures.filter((m) => Object.hasOwn(splits[0].totals, m.name)).map((m) => [m.id, splits[0].totals[m.name][i]]));
    return { ...entry, value: total, cells: entries[1].map(() => null), second: null, headSize: null, also };
  });
  for (const [i, [a, b]] of at.entries()) rows[a].cells[b] = asNumber(values[i]);
  return { rows, series: entries[1] };
}

/** Puts a result into the words of the visual's sentence. `inputs` are values that a board or an address overrides, by name. */
export function toVisualData(whole: Visual, project: Named, result: Result | { error: string } | null, inputs: Record<string, Value> = {}): VisualData {
  const visual = spoken(whole);
  const measure = project.measures.find((m) => m.id === visual.value);
  if (!measure) return nothing(visual, "Choose a measure");
  if (result === null) return nothing(visual, "");
  if ("error" in result) return nothing(visual, result.error);
  const measured = measureColumns(result, visual);
  const type = measured.find((c) => c.name === measure.name)?.type;
  if (type === "text" || type === "date" || type === "timestamp") return nothing(visual, `${measure.label} is a ${type}; a visual needs a number`);
  const inputNow = (i: Named["inputs"][number]) => own(inputs, i.name) ?? i.value;
  const numberFrom = (source: Source | null): number | null => {
    if (!source) return null;
    if ("number" in source) return source.number;
    if ("input" in source) {
      const input = project.inputs.find((i) => i.id === source.input);
      return input ? asNumber(inputNow(input)) : null;
    }
    const m = project.measures.find((k) => k.id === source.measure);
    return m ? asNumber(own(result.totals, m.name)) : null;
  };
  const total = asNumber(own(result.totals, measure.name));
  const labelOf = (id: string | null) => project.measures.find((m) => m.id === id);
  const columnOf = (id: string | null): Value[] => {
    const name = labelOf(id)?.name;
    return (name && measured.find((c) => c.name === name)?.values) || [];
  };
  const { rows, series } = result.crossed
    ? crossedRows(visual, project, result, result.crossed, measure.name)
    : {
        rows: plainRows(visual, project, result, columnOf),
        series:
          visual.split && visual.more.length
            ? [visual.value, ...visual.more]
                .flatMap((id) => labelOf(id) ?? [])
                .map((m) => ({ key: m.id, label: m.label, total: asNumber(own(result.totals, m.name)), groups: 0, format: m.format }))
            : [],
      };
  const comparing = visual.comparison;
  const comparedTo =
    comparing &&
    ("measure" in comparing ? labelOf(comparing.measure)?.label : "input" in comparing ? project.inputs.find((i) => i.id === comparing.input)?.label : "the reference");
  const second = labelOf(visual.second);
  const headSize = labelOf(visual.headSize);
  const target = numberFrom(visual.target);
  const text = (value: number | null, format = measure.format) => ({ value, format });
  const named: [string, TemplateValue][] = [
    ...project.inputs.map((i): [string, TemplateValue] => {
      const now = inputNow(i);
      return [i.name, typeof now === "number" ? { value: now, format: i.format } : String(now ?? "")];
    }),
    ...project.measures.flatMap((m): [string, TemplateValue][] => {
      const now = own(result.totals, m.name);
      if (now === undefined) return [];
      return [[m.name, typeof now === "number" || now === null ? { value: now, format: m.format } : String(now)]];
    }),
    ["value", text(total)],
    ["total", text(total)],
    ["target", text(target)],
    ["measure", measure.label],
    ["category", ""],
    ["share", text(target ? (total === null ? null : total / target) : null, PERCENT_FORMAT)],
  ];
  return {
    rows: visual.split && result.rows === 0 ? [] : rows,
    series,
    comparison: comparing ? { value: numberFrom(comparing), label: comparedTo ?? "" } : null,
    second: second ? { label: second.label, format: second.format } : null,
    headSize: headSize ? { label: headSize.label, format: headSize.format } : null,
    betterWhen: measure.betterWhen,
    total,
    target,
    minimum: numberFrom(visual.minimum),
    maximum: numberFrom(visual.maximum),
    zones: visual.zones,
    format: measure.format,
    valueLabel: measure.label,
    splitLabel: visual.split?.column ?? null,
    title: visual.title,
    subtitle: visual.subtitle,
    names: Object.fromEntries(named),
    notes: result.unfiltered.map(({ table, column }) => `${table} has nothing that means ${column}, so that filter leaves it whole.`),
    problem: null,
  };
}
