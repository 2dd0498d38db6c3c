import type { Theme } from "../../scene/colour";
import type { Mark } from "../../scene/marks";
import { LINE_HEIGHT, SMALLEST, textWidth, wrap } from "../../scene/text";
import { polar } from "../angles";
import { dropColliding } from "../bands";
import { type Box, textMark } from "../frame";

/** A petal as its label needs it: its angles, how far out it reaches, and the wordings of the label, the fullest first. */
export interface LabelledPetal {
  key: string;
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

/** A wording with its name on as many lines as the room asks for, two at most. */
function wrapped([first, ...rest]: string[], room: number, size: number): Wording {
  const names = wrap(first, room, size, 500, 2);
  return { texts: [...names, ...rest], names: names.length };
}

/** The room that labels take at the sides and above. */
export function labelRoom(petals: LabelledPetal[], body: Box, size: number): { side: number; margin: number; wide: number } {
  const wide = Math.min(body.width * 0.24, 120);
  const all = petals.flatMap((p) => (p.wordings[0] ? [wrapped(p.wordings[0], wide, size)] : []));
  const widest = Math.max(0, ...all.flatMap((w) => w.texts.map((t) => textWidth(t, size, 500))));
  return { side: widest + 8, margin: Math.max(0, ...all.map((w) => w.texts.length)) * size * LINE_HEIGHT + 6, wide };
}

/** The nearest place along a petal's middle where a box of text lies on no petal, or null. */
function clearPlace(
  petals: LabelledPetal[],
  centre: { cx: number; cy: number },
  petal: LabelledPetal,
  least: number,
  most: number,
  width: number,
  height: number,
): { x: number; y: number } | null {
  const { cx, cy } = centre;
  const angle = (petal.from + petal.to) / 2;
  const out = polar(0, 0, angle, 1);
  for (let distance = least; distance <= most + 4; distance += 4) {
    const at = polar(cx, cy, angle, distance);
    const [x, y] = [at.x + (out.x * width) / 2, at.y + (out.y * height) / 2];
    const clear = [-0.5, -0.37, -0.25, -0.12, 0, 0.12, 0.25, 0.37, 0.5].every((fx) =>
      [-0.5, -0.25, 0, 0.25, 0.5].every((fy) => {
        const [dx, dy] = [x + fx * width - cx, y + fy * height - cy];
        const turn = (Math.atan2(dx, -dy) * 180) / Math.PI;
        const under = petals.find((p) => (((turn - p.from) % 360) + 360) % 360 < p.to - p.from);
        return !under || Math.hypot(dx, dy) > under.outer + 1;
      }),
    );
    if (clear) return { x, y };
  }
  return null;
}

/**
 * Labels around a rose. A label that would lie on a petal moves outwards; a long name is wrapped; where two still collide all
 * shrink to the floor; what collides then is left out, the smallest values first.
 */
export function outsideLabels(petals: LabelledPetal[], centre: { cx: number; cy: number; r: number }, hole: number, body: Box, wanted: number, theme: Theme): Mark[] {
  const { wide } = labelRoom(petals, body, wanted);
  let best: Mark[] = [];
  const largest = Math.max(0, ...petals.map((p) => p.value));
  for (const size of wanted > SMALLEST ? [wanted, SMALLEST] : [wanted]) {
    const texts = petals.flatMap((petal) => {
      for (const wording of petal.wordings) {
        const { texts: lines, names } = wrapped(wording, wide, size);
        const width = Math.max(...lines.map((l) => textWidth(l, size, 500)));
        const height = lines.length * size * LINE_HEIGHT;
        const place = clearPlace(petals, centre, petal, Math.max(petal.outer, hole) + 5, centre.r + 6, width, height);
        if (!place) continue;
        const { x, y } = place;
        if (x - width / 2 < body.x - 2 || x + width / 2 > body.x + body.width + 2 || y - height / 2 < body.y - 2 || y + height / 2 > body.y + body.height + 2) continue;
        return lines.map((line, k) => {
          const name = k < names;
          const at = y + (k - (lines.length - 1) / 2) * size * LINE_HEIGHT;
          const mark = textMark(`label${k}:${petal.key}`, "labels", x, at, line, size, name ? 500 : 400, name ? theme.ink : theme.muted, "middle");
          return { key: petal.key, lines: lines.length, weight: petal.value - k * largest * 1e-9, mark };
        });
      }
      return [];
    });
    const kept = new Set(dropColliding(texts, body));
    // A label stands with all of its lines, or not at all.
    const whole = petals.filter((p) => texts.some((t) => t.key === p.key) && texts.every((t) => t.key !== p.key || kept.has(t.mark)));
    const keys = new Set(whole.map((p) => p.key));
    const marks = texts.filter((t) => keys.has(t.key)).map((t) => t.mark);
    if (marks.length > best.length) best = marks;
    if (keys.size === petals.filter((p) => p.wordings.length).length) break;
  }
  return best;
}
