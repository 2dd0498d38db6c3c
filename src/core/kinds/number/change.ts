import { formatGap, formatNumber, PERCENT_FORMAT } from "../../base/number-format";
import type { SceneInput } from "../anatomy/kind";
import type { NumberCardPart } from "./parts";

type Input = SceneInput<NumberCardPart>;

/** How a value stands to what it is compared with: its words, its direction, and the tone of better or worse. */
export interface Change {
  text: string;
  against: string;
  direction: "up" | "down" | "level";
  tone: string;
}

/** How the value stands to what it is compared with: its direction, and whether that is better. */
export function changeOf(input: Input, value: number): Change | null {
  const { data, style } = input;
  const { comparison } = data;
  if (!style.toggle("change.shown") || !comparison || comparison.value === null) return null;
  const change = value - comparison.value;
  const percent = style.choice("change.as") === "percent" && comparison.value !== 0;
  const direction = directionOf(change);
  const shown = percent
    ? formatNumber(change / Math.abs(comparison.value), { ...PERCENT_FORMAT, decimals: 1 })
    : formatGap(change, data.format, data.words.points);
  return {
    text: change > 0 ? `+${shown}` : shown,
    against: [data.words.against, comparison.label, formatNumber(comparison.value, data.format)]
      .filter(Boolean)
      .join(" "),
    direction,
    tone: toneOf(input, direction),
  };
}

function directionOf(change: number): Change["direction"] {
  if (change === 0) return "level";
  return change > 0 ? "up" : "down";
}

/** The colour of a change: by whether more or less of the measure is better. */
function toneOf({ data, theme }: Input, direction: Change["direction"]): string {
  if (data.betterWhen === "neither" || direction === "level") return theme.muted;
  const isBetter = (direction === "up") === (data.betterWhen === "higher");
  if (!isBetter) return theme.signal;
  return theme.name === "night" ? "#7fd0ac" : "#236b4b";
}
