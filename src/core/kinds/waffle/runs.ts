import type { VisualRow } from "../../rows/visual-data";
import { mix } from "../../scene/colour";
import type { Datum } from "../../scene/marks";
import type { Colours } from "../anatomy/colours";
import { rowDatum } from "../anatomy/datum";
import type { Goal } from "../anatomy/goal";
import { goalLines, shareText } from "../anatomy/goal";
import type { SceneInput } from "../anatomy/kind";
import { haveShares, restBeside } from "../anatomy/rest";
import { clamp } from "../anatomy/scale";
import { largestRemainder } from "./cells";
import type { WafflePart } from "./parts";

type Input = SceneInput<WafflePart>;

/** A stretch of cells of one look, counted in the order of filling; may end within a cell. */
export interface CellRun {
  id: string;
  row: VisualRow;
  from: number;
  to: number;
  color: string;
  datum: Datum;
}

/** The cells of a ratio: the reached share, and what lies past the goal. */
export function ratioRuns(
  input: Input,
  goal: Goal,
  colours: Colours,
  cells: number,
  row = input.data.rows[0],
  index = 0,
): CellRun[] {
  const { style, theme } = input;
  const value = row.value ?? 0;
  const past = style.choice("cell.past");
  const share = value / goal.full;
  // Cells are parts of a whole, or of an end that all rows share: without either none is filled.
  if (goal.missing) return [];
  const whole = (x: number) => (style.toggle("cell.part") ? x : Math.round(x));
  const reached =
    goal.whole === null
      ? []
      : [{ label: input.data.words.share, value: shareText(share, input.data.format) }];
  const of = input.data.own.target === null ? reached : goalLines(input.data, goal, row);
  const datum = rowDatum(input, row, of);
  const color = colours.of(row, index);
  const deep = mix(color, theme.ink, 0.5);
  if (share <= 0) return [];
  if (share > 1 && past === "extend")
    return [
      { id: row.key, row, from: 0, to: whole(cells / share), color, datum },
      { id: `${row.key}:past`, row, from: whole(cells / share), to: cells, color: deep, datum },
    ];
  const lap = share > 1 && past === "lap" ? whole(clamp(share - 1) * cells) : 0;
  const until = whole(clamp(share) * cells);
  return [
    ...(lap > 0 ? [{ id: `${row.key}:lap`, row, from: 0, to: lap, color: deep, datum }] : []),
    { id: row.key, row, from: lap, to: until, color, datum },
  ].filter((f) => f.to > f.from);
}

/** The whole that the rows with cells are parts of: their sum, and what has no row. */
export const wholeOf = ({ data }: Input): number =>
  data.rows.reduce((sum, { value }) => sum + Math.max(0, value ?? 0), restBeside(data));

/**
 * The cells of parts, by the largest remainders: with those that stay empty for what has no row they add up
 * to all of them.
 */
export function partRuns(input: Input, colours: Colours, cells: number): CellRun[] {
  const rows = input.data.rows
    .map((row, index) => ({ row, index }))
    .filter(({ row }) => row.value !== null && row.value > 0);
  const given = largestRemainder(
    [...rows.map(({ row }) => row.value as number), restBeside(input.data)],
    cells,
  );
  const sum = wholeOf(input);
  let at = 0;
  return rows.map(({ row, index }, i) => {
    const from = at;
    at += given[i];
    const share = (row.value as number) / sum;
    return {
      id: row.key,
      row,
      from,
      to: at,
      color: colours.of(row, index),
      datum: rowDatum(input, row, [
        ...(haveShares(input.data)
          ? [{ label: input.data.words.share, value: shareText(share, input.data.format) }]
          : []),
        { label: input.data.words.cells, value: String(given[i]) },
      ]),
    };
  });
}
