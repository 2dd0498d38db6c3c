import { formatNumber } from "../base/number-format";
import type { VisualData } from "../rows/visual-data";

/** The number that a visual is about, in words: what it is called, and what it is over all its rows. */
export interface Headline {
  label: string;
  value: string;
}

/** So many changes are said; the others are counted. */
const SAID = 2;

/** What a visual is about; null where it has no number of all its rows, or nothing is drawn. */
export const headlineOf = ({ problem, total, valueLabel, format }: VisualData): Headline | null =>
  problem !== null || total === null ? null : { label: valueLabel, value: formatNumber(total, format) };

/**
 * What became of the numbers of a board, for who cannot see them: "On-time rate 91.6 %, before 87.4 %; 2
 * others changed". Both are by tile, in the order in which they are read; visuals of the same number are said
 * once. Empty where nothing was compared.
 */
export function changesSaid(
  before: ReadonlyMap<string, Headline | null>,
  after: ReadonlyMap<string, Headline | null>,
): string {
  const compared = [...after].flatMap(([tile, now]) => {
    const was = before.get(tile);
    return was && now ? { was, now } : [];
  });
  if (compared.length === 0) return "";
  const changed = compared.filter(({ was, now }) => was.label !== now.label || was.value !== now.value);
  const said = [
    ...new Set(
      changed.map(({ was, now }) =>
        was.label === now.label
          ? `${now.label} ${now.value}, before ${was.value}`
          : `${now.label} ${now.value}, before ${was.label} ${was.value}`,
      ),
    ),
  ];
  if (said.length === 0) return "No number changed.";
  const others = said.length - SAID;
  const rest = others > 0 ? [others === 1 ? "1 other changed" : `${others} others changed`] : [];
  return `${[...said.slice(0, SAID), ...rest].join("; ")}.`;
}
