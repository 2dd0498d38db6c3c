import type { VisualRow } from "../../rows/visual-data";
import { isBendable, lettersAround } from "../../scene/bent-text";
import { mix } from "../../scene/colour";
import type { Text } from "../../scene/marks";
import { SMALLEST, textWidth } from "../../scene/text";
import { polar } from "./angles";
import type { Colours } from "./colours";
import { strength } from "./datum";
import { goalFor, reachOn } from "./goal";
import { type ArcsInput, type RowsOnRings, trackColour, trackStrength } from "./progress-arcs";
import type { RingNames } from "./ring-names";
import { clamp } from "./scale";
import { APART, textMark } from "./text-mark";

/** Letters take at most this share of the thickness of their ring. */
const MOST_OF_RING = 0.74;
/** A ring bends its name over at least so many sizes of radius. */
const LEAST_RADIUS = 1.6;

const WEIGHT = 600 as const;

/** A stretch of a ring that is free for a name, in degrees, and the ink that reads on it. */
interface Stretch {
  from: number;
  to: number;
  ink: string;
}

/** The ink that reads on the empty track, or on the sheet where no track is drawn; null where none does. */
function inkOnEmpty(input: ArcsInput): string | null {
  const track = trackColour(input);
  if (track === null) return input.theme.ink;
  return input.surface.inkOnTrack(mix(track, input.theme.sheet, 1 - trackStrength(input)));
}

/**
 * The stretches of a ring that can carry a name: the arc, after its second lap and before its tip, then what
 * is left of the track. The goal's tick divides them. `edge` is what rounded ends take, in degrees.
 */
function stretchesOf(input: ArcsInput, laid: RowsOnRings, i: number, edge: number, color: string): Stretch[] {
  const { style, surface } = input;
  const { rows } = laid;
  const goal = goalFor(input.data, laid.goal, rows[i]);
  const [start, sweep] = [style.number("ring.start"), style.number("ring.sweep")];
  const past = style.choice("ring.past");
  const share = reachOn(goal, rows[i].value);
  const [filled, end] = [start + sweep * clamp(share), start + sweep];
  const lapped = past === "lap" ? start + sweep * clamp(share - 1) : start;
  const tip = past === "hold" && share > 1 ? edge * 2 : 0;
  const empty = inkOnEmpty(input);
  const ground = [
    ...(surface.carriesText && share > 0
      ? [{ from: lapped + edge, to: filled - edge - tip, ink: surface.inkOn(color) }]
      : []),
    ...(empty ? [{ from: filled + edge, to: end - edge, ink: empty }] : []),
  ];
  const tick = goal.isMarked ? start + (sweep * goal.full) / goal.end : null;
  return ground.flatMap((one) =>
    tick === null || tick <= one.from || tick >= one.to
      ? [one]
      : [
          { ...one, to: tick - edge / 2 },
          { ...one, from: tick + edge / 2 },
        ],
  );
}

/** What the names of rings are written from. */
interface Written {
  laid: RowsOnRings;
  colours: Colours;
  size: number;
}

/** One name within its ring; null where no stretch of it has room. */
function nameIn(input: ArcsInput, { laid, colours, size }: Written, i: number, text: string): Text | null {
  const { cx, cy } = laid.centre;
  const { inner, outer } = laid.rings[i];
  const row = laid.rows[i];
  const r = (inner + outer) / 2;
  if (!isBendable(text) || r < size * LEAST_RADIUS) return null;
  const degrees = (pixels: number) => (pixels / r) * (180 / Math.PI);
  const turn = degrees(textWidth(text, size, WEIGHT));
  const edge = degrees(Math.max(4, (outer - inner) * 0.42));
  const stretch = stretchesOf(input, laid, i, edge, colours.of(row, i)).find((s) => s.to - s.from >= turn);
  if (!stretch) return null;
  const angle = stretch.from + turn / 2;
  const line = { ...polar(cx, cy, angle, r), text, size, weight: WEIGHT, align: "middle" as const };
  return {
    ...textMark(`name:${row.key}`, "labels", { ...line, fill: stretch.ink }),
    opacity: strength(input, row.key),
    names: row.key,
    letters: lettersAround(text, size, WEIGHT, { cx, cy, r, angle }),
  };
}

/**
 * The names of rings within them, bent along their way: on the arc where it is long enough, else on the track
 * after it. All in one wording, the fullest of those that `write` gives a row; null where none has room in
 * all rings, or rings are too narrow for a text.
 */
export function namesInTrack(
  input: ArcsInput,
  laid: RowsOnRings,
  colours: Colours,
  wanted: number,
  write: (row: VisualRow) => string[][],
): RingNames | null {
  const { rows, rings } = laid;
  const size = Math.min(wanted, ...rings.map(({ inner, outer }) => (outer - inner) * MOST_OF_RING));
  if (size < SMALLEST) return null;
  const wordings = rows.map((row) => write(row).map((lines) => lines.join(APART)));
  const longest = Math.max(0, ...wordings.map((w) => w.length));
  for (let k = 0; k < longest; k++) {
    const texts = wordings.map((w) => w[Math.min(k, w.length - 1)] ?? "");
    const marks = texts.map((text, i) => nameIn(input, { laid, colours, size }, i, text));
    if (marks.every((mark) => mark !== null)) return { marks, isWhole: true };
  }
  return null;
}
