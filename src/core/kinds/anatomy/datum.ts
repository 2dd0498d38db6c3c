import { exactNumber, formatNumber } from "../../base/number-format";
import { fillTemplate } from "../../base/template";
import { counted } from "../../project/fixed-words";
import { type RowKey, subjectOf } from "../../rows/row-key";
import type { SeriesEntry, VisualData, VisualRow } from "../../rows/visual-data";
import type { Datum } from "../../scene/marks";
import type { SharedInput } from "./shared-parts";

/**
 * How strongly a row is drawn, or what it has of one of the series: those beside the one under the pointer
 * and beside what is picked step back.
 */
export function strength(
  { focus, lit, data }: SharedInput,
  key: RowKey,
  { series, weak = 0.45 }: { series?: RowKey | undefined; weak?: number } = {},
): number {
  const entries = lit?.side === "series" ? data.series : data.rows;
  const picked = lit && entries.some((e) => lit.keys.includes(e.key)) ? lit : null;
  const own = picked?.side === "series" ? series : key;
  const isPicked = picked !== null && own !== undefined && picked.keys.includes(own);
  const isFocused = focus !== null && data.rows.some((r) => r.key === focus.row);
  if (isPicked || (isFocused && focus.row === key)) return 1;
  return picked || isFocused ? weak : 1;
}

/** What a row is held against: its own target where rows have their own, else that of all. */
export const targetOf = ({ own, target }: VisualData, row: Pick<VisualRow, "target">): number | null =>
  own.target === null ? target : (row.target ?? null);

/** What is told of a row where it is drawn in parts: of which series the value is, and what its share is of. */
export interface PartOfRow {
  series?: Pick<SeriesEntry, "key" | "label" | "format">;
  /** Undefined: the target, else the total of all rows. */
  whole?: number | null;
}

/** The tooltip's own text for a row. */
export function ownTooltip(
  { data }: SharedInput,
  text: string,
  row: Pick<VisualRow, "key" | "label" | "value" | "format" | "target">,
  part: PartOfRow = {},
): string {
  const format = part.series?.format ?? row.format ?? data.format;
  // A share of a target that cannot be computed is none of the total.
  const ofAll = data.outOfReach ? null : (data.target ?? data.total);
  const goal = data.own.target === null ? ofAll : targetOf(data, row);
  const whole = part.whole === undefined ? goal : part.whole;
  const share = whole && row.value !== null ? row.value / whole : null;
  return fillTemplate(text, {
    ...categoryNames(data, row),
    ...(part.series?.format ? { measure: part.series.label } : {}),
    ...(part.whole === undefined ? {} : { total: { value: part.whole, format } }),
    value: { value: row.value, format },
    share: {
      value: share,
      format: { ...format, style: "percent", units: "none", prefix: "", suffix: "", decimals: 0 },
    },
  });
}

/**
 * The names of a visual's templates with the category of a row in the place of all of them: where that is a
 * day, or a stretch that begins with one, it can be written in other ways.
 */
export function categoryNames(
  data: VisualData,
  row: Pick<VisualRow, "key" | "label" | "format" | "target">,
): VisualData["names"] {
  const { names, splitInTemplates } = data;
  const { key, label: text } = row;
  const subject = subjectOf(key);
  const day = subject.type === "category" && typeof subject.value === "string" ? subject.value : "";
  const all = splitInTemplates === null ? undefined : names[splitInTemplates];
  const category = typeof all === "object" && "from" in all && day ? { from: day, to: day, text } : text;
  return {
    ...names,
    ...(splitInTemplates === null ? {} : { [splitInTemplates]: category }),
    ...(data.own.target === null
      ? {}
      : { target: { value: targetOf(data, row), format: row.format ?? data.format } }),
    category,
    ...(row.format ? { measure: text } : {}),
  };
}

/** What the pointer finds on a row, or on what it has of one of the series: that is said before its value. */
export function rowDatum(
  input: SharedInput,
  row: VisualRow,
  more: Datum["lines"] = [],
  part: PartOfRow = {},
): Datum {
  const { data, style } = input;
  const { series } = part;
  const title = row.groups > 0 ? `${row.label} (${row.groups} ${data.words.together})` : row.label;
  const datum = { key: row.key, title, ...(series ? { series: series.key } : {}) };
  const own = style.template("tooltip.text");
  if (own) return { ...datum, lines: [{ label: ownTooltip(input, own, row, part), value: "" }] };
  const format = series?.format ?? row.format ?? data.format;
  const measure = series?.format ? series.label : row.format ? row.label : data.valueLabel;
  const exact = exactNumber(row.value, format);
  return {
    ...datum,
    lines: [
      {
        label: measure,
        value: formatNumber(row.value, format),
        ...(exact === undefined ? {} : { exact }),
      },
      ...(series && !series.format ? [{ label: data.words.within, value: series.label }] : []),
      ...more,
    ],
  };
}

/** Whether a row stands for something of its own, and not for what was put together. */
export const isNamed = ({ key }: Pick<VisualRow, "key">): boolean => subjectOf(key).type !== "other";

/** The first rows of a picture in words, and how many more there are. What was put together never leads. */
export function leadingRows(
  input: SharedInput,
  write: (row: VisualRow) => string = (r) => formatNumber(r.value, r.format ?? input.data.format),
): string {
  const { rows } = input.data;
  const said = [...rows.filter(isNamed), ...rows.filter((r) => !isNamed(r))]
    .slice(0, 3)
    .map((r) => (rows.length === 1 ? write(r) : `${r.label} ${write(r)}`));
  return [said.join(", "), counted(input.data.words.more, rows.length - 3)].filter(Boolean).join(" ");
}
