import { type NumberFormat, PERCENT_FORMAT } from "../../base/number-format";
import { niceAbove, type PastEnd } from "./scale";
import type { SharedInput } from "./shared-parts";

/** What progress runs against. */
export interface Goal {
  /** The value that counts as all of it. */
  full: number;
  /** The value at the end of the track. */
  end: number;
  isTarget: boolean;
}

/**
 * The target, else 1 for a percent, else a round number at or above the largest value; the track ends later
 * where it extends.
 */
export function goalOf({ data }: SharedInput, past: PastEnd): Goal {
  const largest = Math.max(0, ...data.rows.map((r) => r.value ?? 0));
  const isTarget = data.target !== null && data.target > 0;
  const full = isTarget ? (data.target as number) : data.format.style === "percent" ? 1 : niceAbove(largest);
  return { full, end: past === "extend" && largest > full ? largest : full, isTarget };
}

/** What the tooltip says of a row besides its value: the goal and how much of it is reached. */
export function goalLines(
  goal: Goal,
  value: number | null,
  write: (n: number) => string,
  share: (n: number) => string,
): { label: string; value: string }[] {
  if (!goal.isTarget || value === null) return [];
  return [
    { label: "Target", value: write(goal.full) },
    { label: "Share", value: share(value / goal.full) },
    { label: "Gap to target", value: write(value - goal.full) },
  ];
}

const WITH_DECIMAL = { ...PERCENT_FORMAT, decimals: 1 };

/**
 * Whether a share is so near its goal that whole percents would claim that the goal is reached, or just not.
 */
const isNearGoal = (share: number): boolean => share !== 1 && Math.abs(share - 1) < 0.0051;

/** The format of a share of a goal: whole percents, with a decimal near the goal. */
export const shareFormat = (share: number | null): NumberFormat =>
  share !== null && isNearGoal(share) ? WITH_DECIMAL : PERCENT_FORMAT;

/** What a value is called that lies outside nothing to the goal; empty where it lies between. */
export function beyondGoal(value: number | null, full: number): "past the goal" | "below zero" | "" {
  if (value === null) return "";
  if (value > full) return "past the goal";
  return value < 0 ? "below zero" : "";
}
