import { contrast } from "../../core/scene/colour";
import { covers, turnedPoints } from "../../core/scene/hit";
import type { Fill, Mark, Rect, Scene, Sector, Text } from "../../core/scene/marks";
import { measuredIn, textWidth } from "../../core/scene/text";

interface Box {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

/** The box of a text's letters: capitals and figures take 0.36 of the size above and below the middle. */
export function textBox(t: Text): Box {
  const width = textWidth(t.text, t.size, t.weight);
  const left = t.align === "start" ? t.x : t.align === "end" ? t.x - width : t.x - width / 2;
  return { left, right: left + width, top: t.y - t.size * 0.36, bottom: t.y + t.size * 0.36 };
}

/** The boxes that a text covers: one for a line, one for each letter of a line that is bent. */
function textBoxes(t: Text): Box[] {
  if (!t.letters) return [textBox(t)];
  return t.letters.map(({ text, x, y, turn }) => {
    const [half, high] = [textWidth(text, t.size, t.weight) / 2, t.size * 0.36];
    const [cos, sin] = [Math.cos, Math.sin].map((f) => Math.abs(f((turn * Math.PI) / 180)));
    const [across, up] = [half * cos + high * sin, half * sin + high * cos];
    return { left: x - across, right: x + across, top: y - up, bottom: y + up };
  });
}

/** The box around several. */
const united = (boxes: Box[]): Box => ({
  left: Math.min(...boxes.map((b) => b.left)),
  right: Math.max(...boxes.map((b) => b.right)),
  top: Math.min(...boxes.map((b) => b.top)),
  bottom: Math.max(...boxes.map((b) => b.bottom)),
});

const overlap = (a: Box, b: Box) =>
  Math.min(a.right, b.right) - Math.max(a.left, b.left) > 0.5 &&
  Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top) > 0.5;

/** The box of a sector: its corners, and where its arcs reach furthest in one of the four directions. */
function sectorBox(m: Sector): Box {
  const quarters = [];
  for (let angle = Math.ceil(m.start / 90) * 90; angle <= m.end; angle += 90) quarters.push(angle);
  const points = [m.start, m.end, ...quarters].flatMap((degrees) =>
    [m.inner, m.outer].map((r): [number, number] => {
      const angle = (degrees * Math.PI) / 180;
      return [m.cx + r * Math.sin(angle), m.cy - r * Math.cos(angle)];
    }),
  );
  return around(points);
}

const around = (points: [number, number][]): Box => ({
  left: Math.min(...points.map((p) => p[0])),
  right: Math.max(...points.map((p) => p[0])),
  top: Math.min(...points.map((p) => p[1])),
  bottom: Math.max(...points.map((p) => p[1])),
});

/** The box that a mark covers. */
export function markBox(m: Mark): Box {
  switch (m.type) {
    case "text":
      return united(textBoxes(m));
    case "sector":
      return sectorBox(m);
    case "rect":
    case "picture":
      return { left: m.x, right: m.x + m.width, top: m.y, bottom: m.y + m.height };
    case "icon":
      return { left: m.x, right: m.x + m.size, top: m.y, bottom: m.y + m.size };
    case "circle":
      return { left: m.cx - m.r, right: m.cx + m.r, top: m.cy - m.r, bottom: m.cy + m.r };
    case "polygon":
      return around(turnedPoints(m));
    case "line":
      return around(m.points);
  }
}

const colours = (fill: Fill): string[] =>
  typeof fill === "string" ? [fill] : fill.stops.map((s) => s.color);

/** Whether something holds a number that is none, at any depth. */
function holdsNoNumber(value: unknown): boolean {
  if (typeof value === "number") return !Number.isFinite(value);
  if (typeof value !== "object" || value === null) return false;
  for (const key in value) if (holdsNoNumber((value as Record<string, unknown>)[key])) return true;
  return false;
}

/** The lowest contrast of a text to what lies under it, at nine points of its box, or of each letter's. */
const worstContrast = (text: Text, shapes: { mark: Mark; box: Box }[], sheet: string): number =>
  Math.min(...textBoxes(text).map((box) => contrastIn(box, text.fill, shapes, sheet)));

function contrastIn(box: Box, ink: string, shapes: { mark: Mark; box: Box }[], sheet: string): number {
  const near = shapes.filter(
    (s) =>
      s.box.left <= box.right &&
      s.box.right >= box.left &&
      s.box.top <= box.bottom &&
      s.box.bottom >= box.top,
  );
  let worst = Number.POSITIVE_INFINITY;
  for (const fx of [0.02, 0.5, 0.98])
    for (const fy of [0.1, 0.5, 0.9]) {
      const [x, y] = [box.left + (box.right - box.left) * fx, box.top + (box.bottom - box.top) * fy];
      const under = near.findLast(({ mark }) => covers(mark, x, y))?.mark;
      for (const color of under?.fill ? colours(under.fill) : [sheet])
        worst = Math.min(worst, contrast(ink, color));
    }
  return worst;
}

/** What is wrong with a scene as a drawing, in words. */
export function faults(scene: Scene, sheet: string): string[] {
  return measuredIn(scene.family, () => {
    const found: string[] = [];
    const ids = new Set<string>();
    const edge = 0.75;
    for (const mark of scene.marks) {
      if (holdsNoNumber(mark)) {
        found.push(`${mark.id} holds a number that is none`);
        continue;
      }
      if (ids.has(mark.id)) found.push(`${mark.id} stands twice`);
      ids.add(mark.id);
      if (mark.type === "rect" && (mark.width < 0 || mark.height < 0))
        found.push(`${mark.id} has a negative side`);
      const box = markBox(mark);
      const empty = mark.type === "sector" && mark.end <= mark.start;
      if (
        !empty &&
        (box.left < -edge ||
          box.right > scene.width + edge ||
          box.top < -edge ||
          box.bottom > scene.height + edge)
      )
        found.push(
          `${mark.type === "text" ? `“${mark.text}”` : mark.id} leaves the frame by ${Math.max(-box.left, box.right - scene.width, -box.top, box.bottom - scene.height).toFixed(1)}`,
        );
    }
    const texts = scene.marks
      .filter((m): m is Text => m.type === "text")
      .map((mark) => ({ mark, boxes: textBoxes(mark) }));
    const shapes = scene.marks.flatMap((mark) =>
      mark.type === "text" || mark.type === "line" ? [] : [{ mark, box: markBox(mark) }],
    );
    for (const { mark, boxes } of texts) {
      if (/\b(NaN|undefined|null|Infinity)\b/.test(mark.text)) found.push(`a text says ${mark.text}`);
      if (mark.size < 9 - 1e-9) found.push(`“${mark.text}” is smaller than 9 px`);
      if ((mark.opacity ?? 1) === 1) {
        const least = mark.size >= 19 ? 3 : 4.5;
        const worst = worstContrast(mark, shapes, sheet);
        if (worst < least - 0.01) found.push(`“${mark.text}” (${mark.id}) reads at ${worst.toFixed(2)}:1`);
      }
      for (const other of texts) {
        if (other.mark === mark) break;
        if (boxes.some((box) => other.boxes.some((o) => overlap(box, o))))
          found.push(`“${mark.text}” lies on “${other.mark.text}”`);
      }
    }
    return found;
  });
}

/** The pieces of a mark that a finish cut into dashes or steps, or the mark itself, by the mark's id. */
export function piecesOf(scene: Scene, id: string): (Sector | Rect)[] {
  return scene.marks.filter(
    (m): m is Sector | Rect =>
      (m.type === "sector" || m.type === "rect") && (m.id === id || m.id.startsWith(`${id}/`)),
  );
}
