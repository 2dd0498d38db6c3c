import type { VisualRow } from "../../rows/visual-data";
import type { Mark } from "../../scene/marks";
import { polar } from "./angles";
import type { Colours } from "./colours";
import { rowDatum, strength } from "./datum";
import {
  type ColourDial,
  type capsDial,
  type NumberDial,
  number,
  type Part,
  part,
  type pastDial,
  type ToggleDial,
} from "./dial";
import { type Goals, goalFor, goalLines, reachOn } from "./goal";
import type { SceneInput } from "./kind";
import { arcMarks, type Centre } from "./rings";
import type { SharedPart } from "./shared-parts";

/** How strong a track is drawn, where a kind lets that be chosen. */
export const TRACK_STRENGTH = part("track", "Track", [number("opacity", "Strength", [10, 100, 5], "%", 100)]);

type ArcDial =
  | NumberDial<"start">
  | NumberDial<"sweep">
  | ReturnType<typeof pastDial>
  | ReturnType<typeof capsDial>;
export type ArcsInput = SceneInput<
  Part<"ring", ArcDial> | Part<"track", ToggleDial<"shown"> | ColourDial<"colour">> | SharedPart
>;

/** Rows on concentric rings, against a goal. */
export interface RowsOnRings {
  rows: VisualRow[];
  rings: { inner: number; outer: number }[];
  centre: Centre;
  goal: Goals;
}

/** The colour of tracks before it is made weaker; null where none are drawn. */
export const trackColour = ({ style, theme }: ArcsInput): string | null =>
  style.toggle("track.shown") ? style.colour("track.colour", theme.track) : null;

/** How strong tracks are drawn, 0 to 1. */
export const trackStrength = ({ style }: ArcsInput): number =>
  (style.within(TRACK_STRENGTH)?.number("track.opacity") ?? 100) / 100;

/**
 * An arc a row, each on its track in a ring of its own, by the dials of the parts "ring" and "track"; where
 * the scale goes on past the goal, the goal is marked.
 */
export function progressArcs(input: ArcsInput, laid: RowsOnRings, colours: Colours): Mark[] {
  const { data, style, theme } = input;
  const { rows, rings, centre, goal } = laid;
  const { cx, cy } = centre;
  const [start, sweep] = [style.number("ring.start"), style.number("ring.sweep")];
  const past = style.choice("ring.past");
  return rows.flatMap((row, i) => {
    const own = goalFor(data, goal, row);
    const arc = arcMarks(input, {
      key: row.key,
      part: "ring",
      cx,
      cy,
      ...rings[i],
      start,
      sweep,
      value: row.value,
      share: reachOn(own, row.value),
      past,
      round: style.choice("ring.caps") === "round",
      color: colours.of(row, i),
      track: trackColour(input),
      trackOpacity: trackStrength(input),
      datum: rowDatum(input, row, goalLines(data, own, row)),
      opacity: strength(input, row.key),
    });
    return own.isMarked ? [...arc, goalTick(laid, i, start + (sweep * own.full) / own.end, theme.ink)] : arc;
  });
}

/** A tick across a ring where the goal lies. */
function goalTick({ rows, rings, centre }: RowsOnRings, i: number, angle: number, stroke: string): Mark {
  const { cx, cy, r } = centre;
  const [a, b] = [
    polar(cx, cy, angle, rings[i].inner - 1),
    polar(cx, cy, angle, Math.min(r, rings[i].outer + 1)),
  ];
  return {
    type: "line",
    id: `target:${rows[i].key}`,
    part: "ring",
    stroke,
    strokeWidth: 2,
    points: [
      [a.x, a.y],
      [b.x, b.y],
    ],
  };
}
