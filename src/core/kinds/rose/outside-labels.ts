import type { RowKey } from "../../rows/row-key";
import type { Box } from "../../scene/box";
import type { Theme } from "../../scene/colour";
import type { Mark, Text } from "../../scene/marks";
import { LINE_HEIGHT, SMALLEST, textWidth, wrap } from "../../scene/text";
import { polar } from "../anatomy/angles";
import { dropColliding } from "../anatomy/clear-of";
import type { Centre } from "../anatomy/rings";
import { textMark } from "../anatomy/text-mark";

/**
 * A petal as its label needs it: its angles, how far out it reaches, and the wordings of the label, the
 * fullest first.
 */
export interface LabelledPetal {
  key: RowKey;
  value: number;
  from: number;
  to: number;
  outer: number;
  wordings: string[][];
}

interface Wording {
  texts: string[];
  /** How many lines of it are the name. */
  names: number;
}

interface SizedWording extends Wording {
  width: number;
  height: number;
}

/** A wording with its name on as many lines as the room asks for, two at most. */
function wrapped([first, ...rest]: string[], room: number, size: number): Wording {
  const names = wrap(first, room, size, 500, 2);
  return { texts: [...names, ...rest], names: names.length };
}

/** Wordings with the boxes that they take. */
function sized(wordings: string[][], wide: number, size: number): SizedWording[] {
  return wordings.map((wording) => {
    const lines = wrapped(wording, wide, size);
    return {
      ...lines,
      width: Math.max(...lines.texts.map((l) => textWidth(l, size, 500))),
      height: lines.texts.length * size * LINE_HEIGHT,
    };
  });
}

/** The petal at an angle: petals follow each other and are of one width. */
function petalAt(petals: LabelledPetal[], angle: number): LabelledPetal {
  const turn = (((angle - petals[0].from) % 360) + 360) % 360;
  return petals[Math.min(petals.length - 1, Math.floor((turn / 360) * petals.length))];
}

/** A rose at one size: its petals, where it stands, and how large its hole is. */
export interface RoseShape {
  centre: Centre;
  hole: number;
  petals: LabelledPetal[];
}

/** The labels to place: the wordings of each petal, their size and ink, and the box that they keep within. */
interface Wanted {
  body: Box;
  size: number;
  theme: Theme;
  wordings: SizedWording[][];
}

/**
 * Whether the edge of a box around (x, y), from the centre, runs clear of all petals: looked at
 * every three pixels.
 */
function isClear({ petals, centre }: RoseShape, x: number, y: number, { width, height }: Size): boolean {
  const reach = (centre.r + 6 + 1.5) ** 2;
  const free = (dx: number, dy: number) => {
    const distance = dx * dx + dy * dy;
    return (
      distance > reach || distance > (petalAt(petals, (Math.atan2(dx, -dy) * 180) / Math.PI).outer + 1.5) ** 2
    );
  };
  const [columns, rows] = [Math.ceil(width / 3), Math.ceil(height / 3)];
  for (let i = 0; i <= columns; i++) {
    const dx = x - width / 2 + (width * i) / columns;
    if (!free(dx, y - height / 2) || !free(dx, y + height / 2)) return false;
  }
  for (let i = 1; i < rows; i++) {
    const dy = y - height / 2 + (height * i) / rows;
    if (!free(x - width / 2, dy) || !free(x + width / 2, dy)) return false;
  }
  return true;
}
type Size = Pick<SizedWording, "width" | "height">;

/** The nearest place along a petal's middle where a box of text lies on no petal, or null. */
function clearPlace(rose: RoseShape, petal: LabelledPetal, size: Size): { x: number; y: number } | null {
  const { cx, cy, r } = rose.centre;
  const out = polar(0, 0, (petal.from + petal.to) / 2, 1);
  const [least, most] = [Math.max(petal.outer, rose.hole) + 5, r + 6];
  const step = Math.max(5, (most - least) / 6);
  for (let distance = least; distance <= most + 4; distance += step) {
    const [x, y] = [out.x * (distance + size.width / 2), out.y * (distance + size.height / 2)];
    if (isClear(rose, x, y, size)) return { x: cx + x, y: cy + y };
  }
  return null;
}

const lies = (within: Box, x: number, y: number, { width, height }: Size) =>
  x - width / 2 >= within.x - 2 &&
  x + width / 2 <= within.x + within.width + 2 &&
  y - height / 2 >= within.y - 2 &&
  y + height / 2 <= within.y + within.height + 2;

interface Line {
  key: RowKey;
  weight: number;
  mark: Text;
}

/** The lines of a petal's label in the first of its wordings that finds a place, or null. */
function linesOf(rose: RoseShape, at: number, { body, size, theme, wordings }: Wanted): Line[] | null {
  const petal = rose.petals[at];
  for (const wording of wordings[at]) {
    const place = clearPlace(rose, petal, wording);
    if (!place || !lies(body, place.x, place.y, wording)) continue;
    const { texts, names } = wording;
    return texts.map((text, k) => {
      const look =
        k < names ? { weight: 500 as const, fill: theme.ink } : { weight: 400 as const, fill: theme.muted };
      const y = place.y + (k - (texts.length - 1) / 2) * size * LINE_HEIGHT;
      const line = { x: place.x, y, text, size, ...look, align: "middle" as const };
      const mark = textMark(`label${k}:${petal.key}`, "labels", line);
      return { key: petal.key, weight: petal.value * (1 - k * 1e-9), mark };
    });
  }
  return null;
}

/**
 * The labels around a rose at one size: the marks, and whether every petal has its label. With `strict`, null
 * as soon as one has none.
 */
function placed(rose: RoseShape, wanted: Wanted, strict: boolean): { marks: Mark[]; all: boolean } | null {
  const { wordings, body } = wanted;
  const found: Line[] = [];
  for (const at of rose.petals.keys()) {
    if (wordings[at].length === 0) continue;
    const lines = linesOf(rose, at, wanted);
    if (lines) found.push(...lines);
    else if (strict) return null;
  }
  const kept = new Set(dropColliding(found, body));
  if (strict && kept.size < found.length) return null;
  // A label stands with all of its lines, or not at all.
  const cut = new Set(found.filter((line) => !kept.has(line.mark)).map((line) => line.key));
  const whole = found.filter((line) => !cut.has(line.key));
  return {
    marks: whole.map((line) => line.mark),
    all: new Set(whole.map((line) => line.key)).size === wordings.filter((w) => w.length).length,
  };
}

/** Labels around a rose of a radius, and whether no petal that has a label goes without. */
export interface AroundRose {
  r: number;
  marks: Mark[];
  all: boolean;
}

/** Petals thinner than this many to the round are not named one by one. */
const MOST_PETALS = 60;
/** A rose is not made smaller than this share of its room for the sake of its labels. */
const LEAST = 0.56;
/** A rose of a smaller radius goes without labels around it. */
const LEAST_RADIUS = 62;

/** The shares of its room that a rose is tried at, from the largest. */
function sharesAt(size: number, wanted: number, petals: number): number[] {
  if (size !== wanted) return [LEAST];
  return petals > 9 ? [0.74, LEAST] : [0.92, 0.74, LEAST];
}

/**
 * Labels around a rose, and the radius that leaves room for them. A label that would lie on a petal moves
 * outwards; a long name is wrapped; the rose gives way; where labels still collide all shrink to the floor;
 * what collides then is left out, the smallest values first. A rose that is small already, or would get
 * smaller than `least`, goes without.
 */
export function outsideLabels(
  shapeOf: (r: number) => RoseShape,
  most: number,
  body: Box,
  wanted: number,
  theme: Theme,
  least: number,
): AroundRose {
  const none = { r: most, marks: [], all: false };
  const { petals } = shapeOf(most);
  if (most < LEAST_RADIUS || petals.length > MOST_PETALS) return none;
  let best: AroundRose = none;
  const wide = Math.min(body.width * 0.24, 120);
  for (const size of wanted > SMALLEST ? [wanted, SMALLEST] : [wanted]) {
    // The fullest wording and the shortest: what lies between is not worth the time.
    const wordings = petals.map((petal) =>
      sized(
        [...new Set([petal.wordings[0], petal.wordings[petal.wordings.length - 1]])].filter(Boolean),
        wide,
        size,
      ),
    );
    for (const share of sharesAt(size, wanted, petals.length)) {
      const r = most * share;
      if (r < least) continue;
      const found = placed(shapeOf(r), { body, size, theme, wordings }, share !== LEAST);
      if (found?.all) return { r, ...found };
      if (found && found.marks.length > best.marks.length) best = { r, ...found };
    }
  }
  if (most * 0.84 < least) return none;
  // A crowd of which most go without names is not made small for the few.
  if (best.marks.length >= petals.length) return best;
  const r = most * 0.84;
  const few = shapeOf(r);
  const wordings = few.petals.map((petal) => sized(petal.wordings.slice(0, 1), wide, SMALLEST));
  const left = placed(few, { body, size: SMALLEST, theme, wordings }, false);
  return { r, marks: left?.marks ?? [], all: false };
}
