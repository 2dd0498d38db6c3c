import { formatGap, formatNumber, type NumberFormat, PERCENT_FORMAT } from "../../base/number-format";
import { filledIn } from "../../project/fixed-words";
import type { VisualData, VisualRow } from "../../rows/visual-data";
import { keepingSides } from "./figures";
import { type PastEnd, roundAbove } from "./scale";
import type { SharedInput } from "./shared-parts";

/** What progress runs against: that of a whole visual, or of one of its rows. */
export interface Goal {
  /** The value that counts as all of it: the target, or 1 of a percent; null where nobody named one. */
  whole: number | null;
  /** The value at which a track is full: the whole, or an end that was chosen so that all rows fit. */
  full: number;
  /** The value at the end of the track. */
  end: number;
  isTarget: boolean;
  /** Whether the track goes on past the target, so that its place has to be marked. */
  isMarked: boolean;
  /** Why a single value has nothing to run against, and is shown as a number; empty where it has. */
  missing: string;
}

/** The goals of a visual whose rows each have a target of their own: on scales of shares, or on one of values. */
type Each = { stretch: number } | { end: number };

/** The goal of a visual as one, and how its rows have theirs; null where it is one for all. */
export interface Goals extends Goal {
  each: Each | null;
}

/** Whether each row's track is full at its own target, or all are on one scale on which targets are ticks. */
export type OwnScale = "own" | "one";

const amountOf = ({ value }: Pick<VisualRow, "value">) => value ?? 0;
/** The largest value of the rows, before a reader filtered them too: a scale that nobody set stands still. */
const largestOf = ({ rows, atRest }: VisualData) =>
  Math.max(0, ...rows.map(amountOf), ...(atRest?.values ?? []));
/** The least whole of a scale: a percent has all of it. */
const leastEnd = ({ format }: VisualData, largest: number) =>
  format.style === "percent" ? Math.max(1, largest) : largest;

/** How rows with targets of their own lie on their tracks. */
function eachOf(data: VisualData, past: PastEnd, scale: OwnScale): Each | null {
  if (data.own.target === null) return null;
  const targets = data.rows.map((r) => r.target ?? 0);
  if (scale === "one") {
    const reach = Math.max(largestOf(data), ...targets, ...(data.atRest?.targets ?? []));
    return { end: data.maximum ?? roundAbove(leastEnd(data, reach)) };
  }
  const shares = data.rows.flatMap((r, i) => (targets[i] > 0 ? [amountOf(r) / targets[i]] : []));
  return { stretch: past === "extend" ? Math.max(1, ...shares) : 1 };
}

/**
 * The target, else 1 for a percent; else rows run to the end that the sentence names, or to a round number
 * at or above the largest of them, which the picture says. The track ends later where it extends. Rows with
 * targets of their own have each their goal: see `goalFor`.
 */
export function goalOf({ data }: SharedInput, past: PastEnd, scale: OwnScale = "own"): Goals {
  const each = eachOf(data, past, scale);
  const largest = Math.max(0, ...data.rows.map(amountOf));
  const isSet = data.maximum !== null && data.maximum > 0;
  const isTarget = data.target !== null && data.target > 0;
  const share = data.format.style === "percent" && data.own.target === null ? 1 : null;
  const whole = isTarget ? data.target : share;
  const full = whole ?? (isSet ? (data.maximum as number) : roundAbove(largestOf(data)));
  const end = past === "extend" && largest > full ? largest : full;
  const none = data.target === null ? data.words.noTarget : data.words.noGoal;
  // One row that a filter left of several stays on their scale.
  const isLeft = (data.atRest?.values.length ?? 0) > 1;
  const isAlone = data.rows.length <= 1 && each === null && !isSet && !isLeft;
  return {
    whole,
    full,
    end,
    isTarget,
    isMarked: past === "extend" && end > full,
    missing: whole === null && isAlone ? none : "",
    each,
  };
}

/** The goal of a row: its own where rows have their own, and none where its own is none; else that of all. */
export function goalFor(
  { words }: VisualData,
  goals: Goals,
  { target = null }: Pick<VisualRow, "target">,
): Goal {
  const { each } = goals;
  if (each === null) return goals;
  if (target === null || target <= 0) {
    const missing = target === null ? words.noOwnTarget : words.noGoal;
    return { whole: null, full: 1, end: 1, isTarget: false, isMarked: false, missing };
  }
  const end = "end" in each ? each.end : target * each.stretch;
  return { whole: target, full: target, end, isTarget: true, isMarked: end > target, missing: "" };
}

/** What the tooltip says of a row besides its value: the goal and how much of it is reached. */
export function goalLines(
  { words, format }: VisualData,
  goal: Goal,
  { value, format: own }: Pick<VisualRow, "value" | "format">,
): { label: string; value: string }[] {
  if (goal.missing) return [{ label: words.target, value: goal.missing }];
  if (!goal.isTarget || value === null) return [];
  const write = (n: number) => formatNumber(n, own ?? format);
  return [
    { label: words.target, value: write(goal.full) },
    { label: words.share, value: shareText(value / goal.full, own ?? format) },
    { label: words.gap, value: formatGap(value - goal.full, own ?? format, words.points) },
  ];
}

const SMALL_SHARE = { ...PERCENT_FORMAT, decimals: 1 };
const ofMeasure = new WeakMap<NumberFormat, NumberFormat>();

/** The format of percents as a measure of percents has it: the same object each time. */
function asMeasured(format: NumberFormat): NumberFormat {
  const found = ofMeasure.get(format) ?? {
    ...PERCENT_FORMAT,
    decimals: format.decimals,
    locale: format.locale,
  };
  ofMeasure.set(format, found);
  return found;
}

/**
 * The format of a share, wherever it is written: as the measure has it, where that is in percents itself;
 * else whole percents, with a decimal below 10 % where they would say too little, and with those that it
 * takes where they would claim that the goal is reached, or just not.
 */
export function shareFormat(share: number | null, format: NumberFormat): NumberFormat {
  if (share === null) return PERCENT_FORMAT;
  if (format.style === "percent") return keepingSides(asMeasured(format), [share], [1]);
  const isSmall = share !== 0 && Math.abs(share) < 0.1;
  return isSmall ? SMALL_SHARE : keepingSides(PERCENT_FORMAT, [share], [1]);
}

/** A share as it is written beside values of a format; see `shareFormat`. */
export const shareText = (share: number, format: NumberFormat): string =>
  formatNumber(share, shareFormat(share, format));

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

/**
 * What the foot says of where tracks end, where nobody named that: "Full at 350 000", or that each is full at
 * its own target.
 */
export function chosenEnd(data: VisualData, { whole, missing, end, each }: Goals): string {
  const { words, format, own } = data;
  if (each && "stretch" in each) return filledIn(words.fullAtOwn, { name: own.target ?? "" });
  const chosen = each ? each.end : whole === null && !missing ? end : null;
  return chosen === null ? "" : filledIn(words.fullAt, { value: formatNumber(chosen, format) });
}
