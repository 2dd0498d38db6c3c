import type { Query, QueryInput, Result } from "../engine/query";
import { civil, isoWeek, parseIsoDate } from "../formula/calendar";
import { columnFor, placesOf } from "../formula/meeting";
import type { Value } from "../formula/value";
import { type Named, scopeOf } from "../project/names";
import type { NumberFormat, Source, Visual, Zone } from "../project/schema";
import { namesInTemplate, type TemplateValue } from "../scene/template";

export interface VisualRow {
  key: string;
  label: string;
  value: number | null;
  /** How many groups this row stands for when it is Other, else 0. */
  groups: number;
}

/** What a kind draws, with every phrase of the sentence resolved to values. */
export interface VisualData {
  rows: VisualRow[];
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
const MONTHS = "Jan Feb Mar Apr May Jun Jul Aug Sep Oct Nov Dec".split(" ");

/** The measures of a project that a template or a phrase of the visual needs besides its value. */
function neededMeasures(visual: Visual, project: Named): string[] {
  const sources = [visual.target, visual.minimum, visual.maximum].flatMap((s) => (s && "measure" in s ? [s.measure] : []));
  const phrases = project.measures.filter((m) => m.id === visual.value || sources.includes(m.id)).map((m) => m.name);
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
export function toQuery(visual: Visual, project: Named, filters: Query["filters"] = [], inputs: Record<string, Value> = {}): QueryInput | null {
  const value = project.measures.find((m) => m.id === visual.value);
  if (!value) return null;
  const shared = filters.filter((f) => value.table !== null && appliesTo(value.table, f.column, project));
  const order = visual.order.by === "value" ? { by: value.name, order: visual.order.order } : { by: "split", order: visual.order.order };
  return {
    measures: neededMeasures(visual, project).map((id) => ({ id })),
    splits: visual.split ? [visual.split] : [],
    filters: [...visual.filters, ...shared],
    inputs,
    ...(visual.split ? { sort: order } : {}),
    ...(visual.split && visual.keep ? { keep: visual.keep } : {}),
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

const asNumber = (value: Value | undefined): number | null => (typeof value === "number" ? value : typeof value === "boolean" ? Number(value) : null);

const nothing = (visual: Visual, problem: string): VisualData => ({
  rows: [],
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

/** Puts a result into the words of the visual's sentence. `inputs` are values that a board or an address overrides, by name. */
export function toVisualData(visual: Visual, project: Named, result: Result | { error: string } | null, inputs: Record<string, Value> = {}): VisualData {
  const measure = project.measures.find((m) => m.id === visual.value);
  if (!measure) return nothing(visual, "Choose a measure");
  if (result === null) return nothing(visual, "");
  if ("error" in result) return nothing(visual, result.error);
  const type = result.columns.find((c) => c.name === measure.name)?.type;
  if (type === "text" || type === "date" || type === "timestamp") return nothing(visual, `${measure.label} is a ${type}; a visual needs a number`);
  const inputNow = (i: Named["inputs"][number]) => inputs[i.name] ?? i.value;
  const numberFrom = (source: Source | null): number | null => {
    if (!source) return null;
    if ("number" in source) return source.number;
    if ("input" in source) {
      const input = project.inputs.find((i) => i.id === source.input);
      return input ? asNumber(inputNow(input)) : null;
    }
    const m = project.measures.find((k) => k.id === source.measure);
    return m ? asNumber(result.totals[m.name]) : null;
  };
  const values = result.columns.find((c) => c.name === measure.name)?.values ?? [];
  const total = asNumber(result.totals[measure.name]);
  const keys = visual.split ? result.columns[0].values : [""];
  const rows = keys.map((key, i): VisualRow => {
    const other = result.others?.row === i;
    const none = result.noMatch?.row === i;
    return {
      key: other ? "\u0000other" : none ? "\u0000no match" : String(key),
      label: other ? "Other" : none ? NO_MATCH_LABEL : visual.split ? keyLabel(key, visual.split.by) : measure.label,
      value: asNumber(values[i]),
      groups: other ? (result.others?.groups ?? 0) : 0,
    };
  });
  const target = numberFrom(visual.target);
  const names: VisualData["names"] = {};
  for (const i of project.inputs) {
    const now = inputNow(i);
    names[i.name] = typeof now === "number" ? { value: now, format: i.format } : String(now ?? "");
  }
  for (const m of project.measures) {
    if (m.name in result.totals) {
      const now = result.totals[m.name];
      names[m.name] = typeof now === "number" || now === null ? { value: now as number | null, format: m.format } : String(now);
    }
  }
  const text = (value: number | null, format = measure.format) => ({ value, format });
  Object.assign(names, {
    value: text(total),
    total: text(total),
    target: text(target),
    measure: measure.label,
    category: "",
    share: text(target ? (total === null ? null : total / target) : null, PERCENT_FORMAT),
  });
  return {
    rows: visual.split && result.rows === 0 ? [] : rows,
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
    names,
    notes: result.unfiltered.map(({ table, column }) => `${table} has nothing that means ${column}, so that filter leaves it whole.`),
    problem: null,
  };
}
