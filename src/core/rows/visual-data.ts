import type { NumberFormat } from "../base/number-format";
import type { TemplateValue } from "../base/template";
import type { Value } from "../base/value";
import type { Result } from "../plan/query";
import type { Words } from "../project/fixed-words";
import type { Measure, Rule, Zone } from "../project/schema";
import type { RowKey } from "./row-key";

/** One row of what a kind draws: a group of the split, or a measure. */
export interface VisualRow {
  key: RowKey;
  label: string;
  value: number | null;
  /** The values of the series, in their order; empty without one. */
  cells: (number | null)[];
  second: number | null;
  headSize: number | null;
  /** What this row alone runs against and starts from, where each has its own; undefined: one for all. */
  target?: number | null;
  baseline?: number | null;
  /** The limits of rules for this row alone, by their place; a hole: one for all. */
  limits?: (Value | undefined)[];
  /** What other measures give for this row, by their id: those that rules look at. */
  also: Record<string, Value>;
  /** The format of the row's own measure, where rows are measures. */
  format?: NumberFormat;
  /** How many groups this row stands for when it is Other, else 0. */
  groups: number;
  /** Where it stands among all categories of its column, whatever is kept of them; null for what is none. */
  place: number | null;
  /** The colour that its category has in the whole project, or null. */
  color: string | null;
}

/** One of the series that each row is divided by. */
export interface SeriesEntry extends Pick<VisualRow, "key" | "label" | "groups" | "place" | "color"> {
  total: number | null;
  /** Where series are measures: the format of its own, and whether its values make their total. */
  format?: NumberFormat;
  addsUp?: boolean;
}

/** A row with a value and nothing else. */
export const plainRow = (key: RowKey, label: string, value: number | null, groups = 0): VisualRow => ({
  key,
  label,
  value,
  groups,
  cells: [],
  second: null,
  headSize: null,
  also: {},
  place: null,
  color: null,
});

/**
 * A zone with its edge as a number; `at` is its place in the sentence, and `isMovable` whether its edge is a
 * number or an input there.
 */
export interface DrawnZone extends Omit<Zone, "to"> {
  to: number | null;
  at: number;
  isMovable: boolean;
}

/** A rule with its limit as a number or a text: null where each row has its own. */
export interface DrawnRule extends Omit<Rule, "than"> {
  than: number | string | null;
  /** Its place in the sentence. */
  at: number;
}

/** What stands still while a board is filtered. */
export interface AtRest {
  total: number | null;
  target: number | null;
  values: number[];
  second: number[];
  targets: number[];
}

/** What a kind draws, with every phrase of the sentence resolved to values. */
export interface VisualData {
  rows: VisualRow[];
  /** A second split, or several measures, that each row is divided by. */
  series: SeriesEntry[];
  /** How many categories the columns of the split and of the series have; 0 where that is not known. */
  categories: { split: number; series: number };
  comparison: { value: number | null; label: string } | null;
  second: { label: string; format: NumberFormat; total: number | null } | null;
  headSize: { label: string; format: NumberFormat } | null;
  betterWhen: Measure["betterWhen"];
  total: number | null;
  /**
   * What the value, the second value and the target are before a reader of a board filters or picks anything,
   * over the rows that are shown then; null where nothing is filtered. Scales and digits that nobody set come
   * from it.
   */
  atRest: AtRest | null;
  /** Whether the values of parts make the value of their whole: not those of ratios or averages. */
  addsUp: boolean;
  /** Whether only the first of the rows are here, and none stands for the others. */
  isCut: boolean;
  target: number | null;
  /** What each row has of its own, by the name of the measure that gives it; null where one is for all. */
  own: { target: string | null; baseline: string | null };
  /** Why there is no target: the split does not reach its measure, or a filter leaves it whole; else null. */
  outOfReach: { by: "split" | "filter"; why: string } | null;
  minimum: number | null;
  maximum: number | null;
  /** What lengths are measured from, where that is not zero. */
  baseline: number | null;
  zones: DrawnZone[];
  rules: DrawnRule[];
  format: NumberFormat;
  valueLabel: string;
  splitLabel: string | null;
  title: string;
  subtitle: string;
  /** The fixed words that pictures of the project say. */
  words: Words;
  /** What names in templates stand for. */
  names: Record<string, TemplateValue>;
  /** The name under which templates write the column of the split. */
  splitInTemplates: string | null;
  /** Dates that are split more finely than they stand for: a plan by month, split by week. */
  coarse: Result["coarse"];
  /** What a reader of the numbers should know besides, such as a filter that leaves a table whole. */
  notes: string[];
  /** What is missing in the sentence, or what went wrong; then nothing is drawn but this. */
  problem: string | null;
}
