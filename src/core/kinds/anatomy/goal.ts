import { formatNumber, type NumberFormat, PERCENT_FORMAT } from "../../base/number-format";
import { filledIn } from "../../project/fixed-words";
import type { VisualData, VisualRow } from "../../rows/visual-data";
import { keepingSides } from "./figures";
import { niceAbove, type PastEnd } from "./scale";
import type { SharedInput } from "./shared-parts";

/** What progress runs against. */
export interface Goal {
  /** The value that counts as all of it: the target, or 1 of a percent; null where nobody named one. */
  whole: number | null;
  /** The value at which a track is full: the whole, or an end that was chosen so that all rows fit. */
  full: number;
  /** The value at the end of the track. */
  end: number;
  isTarget: boolean;
  /** Why a single value has nothing to run against, and is shown as a number; empty where it has. */
  missing: string;
}

/**
 * The target, else 1 for a percent; else several rows run to a round number at or above the largest of them,
 * which the picture says. The track ends later where it extends.
 */
export function goalOf({ data }: SharedInput, past: PastEnd): Goal {
  const largest = Math.max(0, ...data.rows.map((r) => r.value ?? 0));
  const isTarget = data.target !== null && data.target > 0;
  const share = data.format.style === "percent" ? 1 : null;
  const whole = isTarget ? data.target : share;
  const full = whole ?? niceAbove(largest);
  const end = past === "extend" && largest > full ? largest : full;
  const none = data.target === null ? data.words.noTarget : data.words.noGoal;
  return { whole, full, end, isTarget, missing: whole === null && data.rows.length <= 1 ? none : "" };
}

/** What the tooltip says of a row besides its value: the goal and how much of it is reached. */
export function goalLines(
  { words, format }: VisualData,
  goal: Goal,
  { value, format: own }: Pick<VisualRow, "value" | "format">,
): { label: string; value: string }[] {
  if (!goal.isTarget || value === null) return [];
  const write = (n: number) => formatNumber(n, own ?? format);
  return [
    { label: words.target, value: write(goal.full) },
    { label: words.share, value: shareText(value / goal.full) },
    { label: words.gap, value: write(value - goal.full) },
  ];
}

/**
 * The format of a share of a goal: whole percents, with the decimals that it takes where they would claim
 * that the goal is reached, or just not.
 */
export const shareFormat = (share: number | null): NumberFormat =>
  share === null ? PERCENT_FORMAT : keepingSides(PERCENT_FORMAT, [share], [1]);

const SMALL_SHARE = { ...PERCENT_FORMAT, decimals: 1 };

/**
 * A share as whole percents, with a decimal where they would say too little: below 10 %, and near a goal that
 * is not reached.
 */
export function shareText(share: number): string {
  const small = share !== 0 && Math.abs(share) < 0.1;
  return formatNumber(share, small ? SMALL_SHARE : shareFormat(share));
}

/** What a value is called that lies outside nothing to the goal; empty where it lies between. */
export function beyondGoal({ words }: VisualData, value: number | null, whole: number | null): string {
  if (value === null) return "";
  if (whole !== null && value > whole) return words.pastGoal;
  return value < 0 ? words.belowZero : "";
}

/** The share of its track that a value fills, below 0 and past 1 too; nothing where there is nothing to reach. */
export const reachOn = ({ end, missing }: Goal, value: number | null): number =>
  value === null || missing ? 0 : value / end;

/** The share of the whole that a value is; null where there is none. */
export const shareOfGoal = ({ whole }: Goal, value: number | null): number | null =>
  value === null || whole === null ? null : value / whole;

/** The text of a reading: without a whole there is no share to read, and the value stands in its place. */
export const textAgainst = (template: string, { whole }: Goal): string =>
  whole === null ? template.replace(/\{\s*share\s*(:[^{}]*)?\}/gi, "{value}") : template;

/** "Full at 350 000": the end of a scale that nobody named, which the picture has to say. */
export const chosenEnd = ({ words, format }: VisualData, { whole, missing, end }: Goal): string =>
  whole === null && !missing ? filledIn(words.fullAt, { value: formatNumber(end, format) }) : "";
