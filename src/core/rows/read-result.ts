import { isDay, writeDay } from "../base/date-pattern";
import { type NumberFormat, PERCENT_FORMAT, PLAIN_FORMAT } from "../base/number-format";
import { own } from "../base/own";
import type { TemplateValue } from "../base/template";
import type { Value } from "../base/value";
import { mixedWords, wholeWords } from "../plan/left-whole";
import type { Filter, Result } from "../plan/query";
import { addsUp } from "../project/adds-up";
import { type Categorized, categoriesOfSplit } from "../project/categories";
import { wordsOf } from "../project/conventions";
import { counted, filledIn, WORDS } from "../project/fixed-words";
import type { Named } from "../project/names";
import { isOfEach } from "../project/roles";
import type { Measure, NumberSource, Visual } from "../project/schema";
import { columnInTemplates, nameInTemplates, type TemplateRole } from "../project/templates";
import { withDigits } from "./digits";
import { filterText } from "./filter-text";
import { bucketLabels, wordingOf } from "./key-labels";
import { areParts, makeTotal } from "./parts-and-whole";
import { asNumber, crossedRows, measureColumns, plainRows } from "./result-rows";
import { rowKey } from "./row-key";
import type { DrawnRule, DrawnZone, VisualData, VisualRow } from "./visual-data";

const nothing = (visual: Visual, problem: string): VisualData => ({
  rows: [],
  series: [],
  categories: { split: 0, series: 0 },
  comparison: null,
  second: null,
  headSize: null,
  betterWhen: "higher",
  total: null,
  addsUp: true,
  atRest: null,
  isCut: false,
  target: null,
  own: { target: null, baseline: null },
  outOfReach: null,
  minimum: null,
  maximum: null,
  baseline: null,
  zones: [],
  rules: [],
  format: PLAIN_FORMAT,
  valueLabel: "",
  splitLabel: null,
  title: visual.name,
  subtitle: "",
  words: WORDS,
  names: {},
  splitInTemplates: null,
  coarse: [],
  notes: [],
  problem,
});

/** What a board or an address says of a visual: values of inputs by name, and filters besides its own. */
export interface Around {
  inputs?: Record<string, Value>;
  filters?: readonly Filter[];
}

/** A result with what its visual's phrases are resolved against. */
interface Reading {
  visual: Visual;
  measure: Measure;
  project: Categorized;
  result: Result;
  around: Around;
  /** How the values of a measure are written in this visual. */
  formatOf: (measure: Measure) => NumberFormat;
}

/** How measures are written in a visual: with the digits that tell their values apart, where nobody fixed them. */
function formatsIn(visual: Visual, result: Result): Reading["formatOf"] {
  const extent = Math.max(visual.size.width, visual.size.height);
  const valuesOf = (name: string): Value[] => {
    const rest = result.atRest && own(result.atRest, name);
    if (rest) return [...rest.values, rest.total];
    const rows = result.crossed ? (own(result.crossed.splits[0].totals, name) ?? []) : [];
    const cells = measureColumns(result, visual).find((c) => c.name === name)?.values ?? [];
    return [...rows, ...cells, own(result.totals, name) ?? null];
  };
  return ({ name, format }) =>
    format.decimals === "automatic" ? withDigits(format, valuesOf(name).map(asNumber), extent) : format;
}

const measureIn = (project: Named, id: string | null) => project.measures.find((m) => m.id === id);
const inputNow = ({ around }: Reading, input: Named["inputs"][number]) =>
  own(around.inputs ?? {}, input.name) ?? input.value;

/** The number that a phrase names: its own, an input's, or a measure's over all rows. */
function numberFrom(reading: Reading, source: NumberSource | null): number | null {
  if (!source) return null;
  if ("number" in source) return source.number;
  const { project, result } = reading;
  if ("input" in source) {
    const input = project.inputs.find((i) => i.id === source.input);
    return input ? asNumber(inputNow(reading, input)) : null;
  }
  const measure = measureIn(project, source.measure);
  return measure && !leftWhole(result, measure) ? asNumber(own(result.totals, measure.name)) : null;
}

/** What a filter leaves whole of a measure: nothing can be held against that while the value is narrowed. */
const leftWhole = (result: Result, { name }: Measure) =>
  result.leftWhole.find(({ measure, as }) => measure === name && as !== "allowed");

/** The subtitle, with the names of measures that stand whole beside what filters narrow. */
function subtitleOf({ visual, project, result }: Reading): string {
  const allowed = result.leftWhole.filter(({ as }) => as === "allowed").map(({ measure }) => measure);
  const said = [...new Set(allowed)].flatMap((name) => {
    const label = project.measures.find((m) => m.name === name)?.label.replace(/[{}]/g, "");
    return label ? [filledIn(wordsOf(project).whole, { name: label })] : [];
  });
  return [visual.subtitle, ...said].filter(Boolean).join(" · ");
}

/** The zones with their edges as numbers; one whose edge is nothing now ends nowhere, and is left out. */
function zonesNow(reading: Reading): DrawnZone[] {
  return reading.visual.zones.flatMap((zone, at): DrawnZone[] => {
    const { to } = zone;
    if (typeof to !== "object" || to === null) return [{ ...zone, to, at, isMovable: true }];
    const edge = numberFrom(reading, to);
    return edge === null ? [] : [{ ...zone, to: edge, at, isMovable: "input" in to }];
  });
}

/** The rules with their limits as values; one whose limit is nothing now holds for nothing. */
function rulesNow(reading: Reading): DrawnRule[] {
  return reading.visual.rules.flatMap((rule, at): DrawnRule[] => {
    const { than } = rule;
    if (typeof than !== "object") return [{ ...rule, than, at }];
    if (isOfEach(reading.visual, than)) return [{ ...rule, than: null, at }];
    const limit = numberFrom(reading, than);
    return limit === null ? [] : [{ ...rule, than: limit, at }];
  });
}

/** The numbers that each row has of its own: a dash where its measure cannot be computed so. */
function ownNumbers(reading: Reading, i: number): Pick<VisualRow, "target" | "baseline" | "limits"> {
  const { visual, project } = reading;
  const { target, baseline, rules } = visual;
  const of = (source: NumberSource | null) => {
    if (!isOfEach(visual, source)) return undefined;
    const measure = measureIn(project, source.measure);
    if (!measure || leftWhole(reading.result, measure)) return null;
    return asNumber(rowValues(reading, measure.name)?.[i]);
  };
  const limits = rules.map(({ than }) => of(typeof than === "object" ? than : null));
  return {
    ...(isOfEach(visual, target) ? { target: of(target) } : {}),
    ...(isOfEach(visual, baseline) ? { baseline: of(baseline) } : {}),
    ...(limits.some((limit) => limit !== undefined) ? { limits } : {}),
  };
}

/** The values of a measure by row; undefined where it has none. */
const rowValues = ({ visual, result }: Reading, name: string): Value[] | undefined =>
  result.crossed
    ? own(result.crossed.splits[0].totals, name)
    : measureColumns(result, visual).find((c) => c.name === name)?.values;

/** What rows have of their own, in words. */
const ownIn = (reading: Reading): VisualData["own"] => {
  const { target, baseline } = reading.visual;
  const of = (source: NumberSource | null) =>
    source && isOfEach(reading.visual, source) ? labelOf(reading, source) : null;
  return { target: of(target), baseline: of(baseline) };
};

function labelOf({ project }: Reading, source: NumberSource): string {
  if ("number" in source) return "";
  const named =
    "measure" in source
      ? measureIn(project, source.measure)
      : project.inputs.find((i) => i.id === source.input);
  return named?.label ?? "";
}

function rowsAndSeries(reading: Reading): Pick<VisualData, "rows" | "series"> {
  const { rows, series } = plainRowsAndSeries(reading);
  return { rows: rows.map((row, i) => ({ ...row, ...ownNumbers(reading, i) })), series };
}

function plainRowsAndSeries({
  visual,
  measure,
  project,
  result,
  formatOf,
}: Reading): Pick<VisualData, "rows" | "series"> {
  const said = [visual.split, visual.series].map((split) => categoriesOfSplit(project, measure.table, split));
  if (result.crossed) return crossedRows(visual, project, result, result.crossed, measure.name, said);
  const measured = measureColumns(result, visual);
  const columnOf = (id: string | null): Value[] => {
    const name = measureIn(project, id)?.name;
    return (name && measured.find((c) => c.name === name)?.values) || [];
  };
  const rows =
    visual.split && result.rows === 0
      ? []
      : plainRows(visual, project, result, { columnOf, formatOf }, said[0]);
  if (!visual.split || visual.more.length === 0) return { rows, series: [] };
  const measures = [visual.value, ...visual.more].flatMap((id) => measureIn(project, id) ?? []);
  /** Whether the values of a measure make its total. */
  const addUp = (values: (number | null)[], m: Measure) => {
    const parts = { values, total: asNumber(own(result.totals, m.name)) };
    return makeTotal(addsUp(m, project), parts, isCutIn(visual, rows.length));
  };
  const series = measures.map((m, place) => ({
    key: rowKey({ type: "measure", id: m.id }),
    label: m.label,
    total: asNumber(own(result.totals, m.name)),
    groups: 0,
    place,
    color: null,
    format: formatOf(m),
    addsUp: addUp(
      rows.map((r) => r.cells[place]),
      m,
    ),
  }));
  return { rows, series };
}

/** What a split is called in a caption: its column, or the stretch of time it is by. */
const splitName = (split: Visual["split"]) => split?.by ?? split?.column.replaceAll("_", " ") ?? "";

/** A value as templates write it: a number in its format, a date that can be written in other ways, a text. */
export function inTemplates(value: Value, format: NumberFormat): TemplateValue {
  if (typeof value === "number") return { value, format };
  const text = String(value ?? "");
  return isDay(text) ? { from: text, to: text, text: writeDay(text, format) } : text;
}

/** The filters of a visual and of the board it stands on, as a caption says them. */
function filtersInWords({ visual, around }: Reading): string {
  const all = [...visual.filters, ...(around.filters ?? [])];
  return all.length ? all.map(filterText).join(", ") : "all rows";
}

/** How many categories a caption names one by one. */
const NAMED_CATEGORIES = 3;

/** The columns of the splits, with the categories that they show: a stretch of days, or names. */
function splitsInTemplates({ visual, project, result }: Reading): [string, TemplateValue][] {
  return [visual.split, visual.series].flatMap((split, at): [string, TemplateValue][] => {
    if (!split) return [];
    const side = result.crossed?.splits[at];
    const keys = side?.keys ?? result.columns[0].values;
    const isPut = (i: number) => i === (side ? side.others?.at : result.others?.row);
    const shown = keys.filter((key, i) => key !== null && !isPut(i));
    const labelFor = bucketLabels(split, shown, wordingOf(project));
    const type = side?.type ?? result.columns[0].type;
    const name = columnInTemplates(project, split.column);
    if (shown.length && (type === "date" || type === "timestamp")) {
      const [from, to] = [shown.reduce(earlier), shown.reduce(later)].map(String);
      const text = [...new Set([labelFor(from), labelFor(to)])].join(" – ");
      return [[name, { from, to, text }]];
    }
    const said = shown.slice(0, NAMED_CATEGORIES).map(labelFor).join(", ");
    return [
      [
        name,
        [said, counted(wordsOf(project).more, shown.length - NAMED_CATEGORIES)].filter(Boolean).join(" "),
      ],
    ];
  });
}
const earlier = (a: Value, b: Value) => (String(a) < String(b) ? a : b);
const later = (a: Value, b: Value) => (String(a) > String(b) ? a : b);

/** What names in templates stand for: inputs, measures over all rows, and the words of the sentence. */
function templateValues(reading: Reading, total: number | null, target: number | null): VisualData["names"] {
  const { measure, project, result, formatOf } = reading;
  const text = (value: number | null, format = formatOf(measure)) => ({ value, format });
  const share = target ? (total === null ? null : total / target) : null;
  const roles: Record<TemplateRole, TemplateValue> = {
    value: text(total),
    total: text(total),
    target: text(target),
    share: text(share, PERCENT_FORMAT),
    measure: measure.label,
    split: splitName(reading.visual.split),
    series: splitName(reading.visual.series),
    category: "",
    filters: filtersInWords(reading),
  };
  const named: [string, TemplateValue][] = [
    ...project.inputs.map((i): [string, TemplateValue] => {
      const now = inputNow(reading, i);
      return [nameInTemplates("input", i.name), inTemplates(now, i.format)];
    }),
    ...project.measures.flatMap((m): [string, TemplateValue][] => {
      const now = own(result.totals, m.name);
      if (now === undefined) return [];
      const format = formatOf(m);
      const value = now === null ? { value: now, format } : inTemplates(now, format);
      return [[nameInTemplates("measure", m.name), value]];
    }),
    ...splitsInTemplates(reading),
    ...Object.entries(roles),
  ];
  return Object.fromEntries(named);
}

/** Why the measure of the target has no value, and whether a filter or the split is to blame; null where it has. */
function outOfReachIn(reading: Reading): VisualData["outOfReach"] {
  const { visual, project, result } = reading;
  const { target } = visual;
  const measure = target && "measure" in target ? measureIn(project, target.measure) : undefined;
  if (!measure) return null;
  const whole = leftWhole(result, measure);
  if (whole) return { by: "filter", why: wholeWords(whole) };
  const isAnswered = !isOfEach(visual, target) || rowValues(reading, measure.name) !== undefined;
  return isAnswered ? null : { by: "split", why: result.unanswered[0] ?? "" };
}

const known = (values: readonly Value[]): number[] => values.map(asNumber).filter((v) => v !== null);

/** What stands still while a board is filtered; null where it is not. */
function atRestOf({ visual, measure, project, result }: Reading): VisualData["atRest"] {
  const rest = result.atRest;
  if (!rest) return null;
  const of = (id: string | null) => {
    const name = measureIn(project, id)?.name;
    return name === undefined ? undefined : own(rest, name);
  };
  const { target } = visual;
  const against = target && "measure" in target ? of(target.measure) : undefined;
  const more = visual.split ? [] : visual.more.flatMap((id) => of(id)?.values ?? []);
  return {
    total: asNumber(of(measure.id)?.total),
    target: asNumber(against?.total),
    values: known([...(of(measure.id)?.values ?? []), ...more]),
    second: known(of(visual.second)?.values ?? []),
    targets: known(isOfEach(visual, target) ? (against?.values ?? []) : []),
  };
}

/** Whether a visual keeps the first of its rows alone, and there can be others. */
const isCutIn = ({ split, keep }: Visual, rows: number): boolean =>
  split !== null && keep !== null && !keep.others && rows >= keep.first;

/** What a reader of the numbers should know besides. */
const notesOf = ({ unfiltered, coarse, unanswered }: Result): string[] => [
  ...unanswered.map((problem) => `Cannot be answered here, so that “—” stands wherever it would: ${problem}`),
  ...unfiltered.map(wholeWords),
  ...coarse.map(
    ({ table, column, grain, by }) =>
      `${table}.${column} has one date a ${grain}: split by ${by}, all of a ${grain} stands in its first ${by}.`,
  ),
];

/**
 * What a visual draws of the answer to its query (null while that is awaited): its phrases resolved to
 * values. `visual` has only phrases that its kind has roles for. `inputs` are values that a board or an
 * address overrides, by name.
 */
export function readResult(
  visual: Visual,
  project: Categorized,
  result: Result | { error: string } | null,
  around: Around,
): VisualData {
  const measure = measureIn(project, visual.value);
  if (!measure) return nothing(visual, "Choose a measure");
  if (result === null) return nothing(visual, "");
  if ("error" in result) return nothing(visual, result.error);
  const type = measureColumns(result, visual).find((c) => c.name === measure.name)?.type;
  if (type === "text" || type === "date" || type === "timestamp")
    return nothing(visual, `${measure.label} is a ${type}; a visual needs a number`);
  const mixed = leftWhole(result, measure);
  if (mixed?.as === "mixed") return nothing(visual, mixedWords(mixed, measure.label));
  const reading: Reading = { visual, measure, project, result, around, formatOf: formatsIn(visual, result) };
  const { formatOf } = reading;
  const [second, headSize] = [visual.second, visual.headSize].map((id) => measureIn(project, id) ?? null);
  const total = asNumber(own(result.totals, measure.name));
  const outOfReach = outOfReachIn(reading);
  const target = outOfReach ? null : numberFrom(reading, visual.target);
  const parts = { ...rowsAndSeries(reading), total };
  const isCut = isCutIn(visual, parts.rows.length);
  const told = addsUp(measure, project);
  return {
    ...parts,
    atRest: atRestOf(reading),
    isCut,
    categories: { split: result.places[0]?.of ?? 0, series: result.places[1]?.of ?? 0 },
    comparison: visual.comparison
      ? { value: numberFrom(reading, visual.comparison), label: labelOf(reading, visual.comparison) }
      : null,
    second: second && {
      label: second.label,
      format: formatOf(second),
      total: asNumber(own(result.totals, second.name)),
    },
    headSize: headSize ? { label: headSize.label, format: formatOf(headSize) } : null,
    betterWhen: measure.betterWhen,
    addsUp: visual.split ? areParts(told, parts, isCut) : told !== "no",
    target,
    own: ownIn(reading),
    outOfReach,
    minimum: numberFrom(reading, visual.minimum),
    maximum: numberFrom(reading, visual.maximum),
    baseline: numberFrom(reading, visual.baseline),
    zones: zonesNow(reading),
    rules: rulesNow(reading),
    format: formatOf(measure),
    valueLabel: measure.label,
    splitLabel: visual.split?.column ?? null,
    title: visual.title,
    subtitle: subtitleOf(reading),
    words: wordsOf(project),
    names: templateValues(reading, total, target),
    splitInTemplates: visual.split && columnInTemplates(project, visual.split.column),
    coarse: result.coarse,
    notes: notesOf(result),
    problem: null,
  };
}
