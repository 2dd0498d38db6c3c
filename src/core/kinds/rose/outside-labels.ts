import type { Box } from "../../scene/box";
import type { Theme } from "../../scene/colour";
import type { Mark } from "../../scene/marks";
import { LINE_HEIGHT, SMALLEST, textWidth, wrap } from "../../scene/text";
import { polar } from "../anatomy/angles";
import { dropColliding } from "../anatomy/bands";
import { textMark } from "../anatomy/text-mark";

/**
 * A petal as its label needs it: its angles, how far out it reaches, and the wordings of the label, the
 * fullest first.
 */
export interface LabelledPetal {
  key: string;
  value: number;
  from: number;
  to: number;
  outer: number;
  wordings: string[][];
}

interface Centre {
  cx: number;
  cy: number;
  r: number;
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

/**
 * Whether the edge of a box around (x, y), from the centre, runs clear of all petals: looked at every three
 * pixels.
 */
function isClear(
  petals: LabelledPetal[],
  most: number,
  x: number,
  y: number,
  width: number,
  height: number,
): boolean {
  const reach = (most + 1.5) ** 2;
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

/** The nearest place along a petal's middle where a box of text lies on no petal, or null. */
function clearPlace(
  petals: LabelledPetal[],
  { cx, cy }: { cx: number; cy: number },
  petal: LabelledPetal,
  least: number,
  most: number,
  width: number,
  height: number,
): { x: number; y: number } | null {
  const out = polar(0, 0, (petal.from + petal.to) / 2, 1);
  const step = Math.max(5, (most - least) / 6);
  for (let distance = least; distance <= most + 4; distance += step) {
    const [x, y] = [out.x * (distance + width / 2), out.y * (distance + height / 2)];
    if (isClear(petals, most, x, y, width, height)) return { x: cx + x, y: cy + y };
  }
  return null;
}

type TextMark = ReturnType<typeof textMark>;
interface Line {
  key: string;
  weight: number;
  mark: TextMark;
}

/** The lines of a petal's label in the first of its wordings that finds a place, or null. */
function linesOf(
  petals: LabelledPetal[],
  at: number,
  wordings: SizedWording[],
  centre: Centre,
  hole: number,
  body: Box,
  size: number,
  theme: Theme,
): Line[] | null {
  const petal = petals[at];
  for (const { texts, names, width, height } of wordings) {
    const place = clearPlace(
      petals,
      centre,
      petal,
      Math.max(petal.outer, hole) + 5,
      centre.r + 6,
      width,
      height,
    );
    if (!place) continue;
    const { x, y } = place;
    if (
      x - width / 2 < body.x - 2 ||
      x + width / 2 > body.x + body.width + 2 ||
      y - height / 2 < body.y - 2 ||
      y + height / 2 > body.y + body.height + 2
    )
      continue;
    return texts.map((line, k) => {
      const name = k < names;
      const middle = y + (k - (texts.length - 1) / 2) * size * LINE_HEIGHT;
      const mark = textMark(`label${k}:${petal.key}`, "labels", {
        x,
        y: middle,
        text: line,
        size,
        weight: name ? 500 : 400,
        fill: name ? theme.ink : theme.muted,
        align: "middle",
      });
      return { key: petal.key, weight: petal.value * (1 - k * 1e-9), mark };
    });
  }
  return null;
}

/**
 * The labels around a rose of one radius at one size: the marks, and whether every petal has its label. With
 * `strict`, null as soon as one has none.
 */
function placed(
  petals: LabelledPetal[],
  wordings: SizedWording[][],
  centre: Centre,
  hole: number,
  body: Box,
  size: number,
  theme: Theme,
  strict: boolean,
): { marks: Mark[]; all: boolean } | null {
  const found: Line[] = [];
  for (const at of petals.keys()) {
    if (wordings[at].length === 0) continue;
    const lines = linesOf(petals, at, wordings[at], centre, hole, body, size, theme);
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

/** Petals thinner than this many to the round are not named one by one. */
const MOST_PETALS = 60;
/** A rose is not made smaller than this share of its room for the sake of its labels. */
const LEAST = 0.56;

/**
 * Labels around a rose, and the radius that leaves room for them. A label that would lie on a petal moves
 * outwards; a long name is wrapped; the rose gives way; where labels still collide all shrink to the floor;
 * what collides then is left out, the smallest values first. A rose that is small already goes without.
 */
export function outsideLabels(
  petalsAt: (r: number) => LabelledPetal[],
  whole: Centre,
  holeOf: (r: number) => number,
  body: Box,
  wanted: number,
  theme: Theme,
): { r: number; marks: Mark[] } {
  if (whole.r < 62 || petalsAt(whole.r).length > MOST_PETALS) return { r: whole.r, marks: [] };
  let best: { r: number; marks: Mark[] } = { r: whole.r, marks: [] };
  const wide = Math.min(body.width * 0.24, 120);
  for (const size of wanted > SMALLEST ? [wanted, SMALLEST] : [wanted]) {
    // The fullest wording and the shortest: what lies between is not worth the time.
    const wordings = petalsAt(whole.r).map((petal) =>
      sized(
        [...new Set([petal.wordings[0], petal.wordings[petal.wordings.length - 1]])].filter(Boolean),
        wide,
        size,
      ),
    );
    const shares = size !== wanted ? [LEAST] : wordings.length > 9 ? [0.74, LEAST] : [0.92, 0.74, LEAST];
    for (const share of shares) {
      const r = whole.r * share;
      const found = placed(
        petalsAt(r),
        wordings,
        { ...whole, r },
        holeOf(r),
        body,
        size,
        theme,
        share !== LEAST,
      );
      if (found?.all) return { r, marks: found.marks };
      if (found && found.marks.length > best.marks.length) best = { r, marks: found.marks };
    }
  }
  // A crowd of which most go without names is not made small for the few.
  if (best.marks.length >= petalsAt(whole.r).length) return best;
  const r = whole.r * 0.84;
  const few = petalsAt(r);
  const wordings = few.map((petal) => sized(petal.wordings.slice(0, 1), wide, SMALLEST));
  return {
    r,
    marks: placed(few, wordings, { ...whole, r }, holeOf(r), body, SMALLEST, theme, false)?.marks ?? [],
  };
}
