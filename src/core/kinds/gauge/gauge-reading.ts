import { crossesLine, shortFormats } from "../../base/number-format";
import { fillTemplate } from "../../base/template";
import type { Mark, Text } from "../../scene/marks";
import { fitText, SMALLEST, textWidth } from "../../scene/text";
import { polar } from "../anatomy/angles";
import { linesOf } from "../anatomy/figures";
import type { SceneInput } from "../anatomy/kind";
import { clamp } from "../anatomy/scale";
import { textMark } from "../anatomy/text-mark";
import {
  ENDS_FROM,
  type Face,
  INSIDE_FROM,
  isClearOfArc,
  plainDrop,
  READING_SHARE,
  readingDrop,
  readingWays,
  type Way,
} from "./face";
import type { GaugePart } from "./parts";

type Input = SceneInput<GaugePart>;

/** What a gauge says: its value, the word of its zone, and where it lies beyond the scale. */
export interface GaugeSaid {
  value: number;
  word: string;
  /** "past the end" or "below the start"; empty on the scale. */
  past: string;
}

/** The reading in each wording, the fullest first. */
function textsOf({ data, style }: Input, value: number): string[] {
  const lines = linesOf(data);
  const shortened = shortFormats(data.format)
    .filter((format) => !lines.some((line) => crossesLine(value, line, format)))
    .map((format) => ({ ...data.names, value: { value, format } }));
  return [data.names, ...shortened].map((names) => fillTemplate(style.template("reading.text"), names));
}

/** A place of the reading: its middle, the room it has there, and what fits. */
interface Fitted {
  y: number;
  room: number;
  text: string;
  size: number;
}

/** Where the inside of the arc begins: a second lap runs within it. */
function insideOf({ style }: Input, { r, inner }: Face, past: string): number {
  const isLapped = style.choice("arc.past") === "lap" && past !== "";
  return isLapped ? inner - Math.max(2, (r - inner) * 0.3) - 4 : inner;
}

/** The width that the arc leaves at a height below the hub, both sides of it. */
function chordAt({ start, sweep }: Face, free: number, dy: number): number {
  // An arc that opens downwards ends above the reading, unless it sweeps far round.
  const opening = Math.abs(((start + sweep / 2 + 180) % 360) - 180);
  const isOpen = sweep <= INSIDE_FROM + 20 && opening < 12;
  if (isOpen || sweep <= INSIDE_FROM || dy >= free) return Number.POSITIVE_INFINITY;
  return 2 * Math.sqrt(Math.max(0, free ** 2 - dy ** 2)) * 0.92;
}

/**
 * The reading as large and as clear as it gets. To be read whole and off the arc goes before standing clear
 * of the needle, and then before size: a smaller text stands higher, where the arc is wider.
 */
function fitReading(input: Input, face: Face, { value, past }: GaugeSaid, wanted: number): Fitted {
  const { style, data, frame } = input;
  const { cx, cy, r, inner } = face;
  const hub = Math.min(style.number("needle.hub"), r * 0.16);
  const half = textWidth(fillTemplate(style.template("reading.text"), data.names), wanted, 600) / 2;
  const texts = textsOf(input, value);
  const free = insideOf(input, face, past);
  const side = 2 * Math.min(cx, frame.width - cx) - 8;
  const roomAt = (dy: number) =>
    Math.min(frame.width - 8, Math.max(chordAt(face, free, dy), inner * 0.9), side);
  const place = (drop: number, size: number): Fitted => {
    const dy = Math.min(drop, face.bottom - size * 0.5 - cy);
    return { y: cy + dy, room: roomAt(dy), ...fitText(texts, roomAt(dy), size, 600) };
  };
  const clear = readingDrop(style, hub, {
    size: wanted,
    half: Math.min(half, inner * 0.62),
    lineHalf: 0,
    under: 0,
  });
  const isFree = chordAt(face, free, clear) >= half * 1.5;
  const sizes = [wanted, wanted * 0.8, wanted * 0.65, SMALLEST].map((size) => Math.max(SMALLEST, size));
  const drops = [...(isFree ? [[clear, wanted]] : []), ...sizes.map((size) => [plainDrop(hub, size), size])];
  let best: Fitted | null = null;
  for (const [drop, size] of drops) {
    const fitted = place(drop, size);
    if (!texts.includes(fitted.text)) continue;
    const half = textWidth(fitted.text, fitted.size, 600) / 2;
    if (isClearOfArc(face, free, { x: cx, y: fitted.y, half, size: fitted.size })) return fitted;
    best ??= fitted;
  }
  // The smallest dials have no room inside for their value: it is written whole all the same.
  const last = place(plainDrop(hub, SMALLEST), SMALLEST);
  return best ?? { ...last, text: texts[texts.length - 1], size: SMALLEST };
}

/** The line under the reading: the word of the zone, or that the value lies beyond the scale. */
function wordMarks(
  input: Input,
  face: Face,
  { word, past }: GaugeSaid,
  fitted: Fitted,
  size: number,
): Text[] {
  const { style, theme, frame } = input;
  const text = past || (style.toggle("reading.word") ? word : "");
  const y = fitted.y + fitted.size * 0.6 + size * 0.75;
  if (!text || y + size * 0.6 > face.bottom) return [];
  // Under the reading the arc's ends are the nearest neighbours.
  const isEnded = face.r > ENDS_FROM && style.toggle("scale.ends");
  const between = isEnded ? 2 * (face.r * 0.86 - 14) : Number.POSITIVE_INFINITY;
  const room = Math.max(fitted.room, Math.min(frame.width - 8, between));
  const said = fitText([text], room, size, 500);
  const fill = past ? theme.signal : theme.muted;
  const line = { x: face.cx, y, ...said, weight: 500, fill, align: "middle" } as const;
  const half = textWidth(said.text, said.size, 500) / 2;
  const isOff = isClearOfArc(face, insideOf(input, face, past), { x: face.cx, y, half, size: said.size });
  return said.text && isOff ? [textMark("word", "reading", line)] : [];
}

/** The room beside or over the hub: to the frame, or to the inside of an arc that goes round it. */
function roomBeside(input: Input, face: Face, way: Exclude<Way, "down">, past: string, edge: number): number {
  const { cx, sweep } = face;
  const { width } = input.frame;
  const inside = sweep > INSIDE_FROM ? insideOf(input, face, past) : Number.POSITIVE_INFINITY;
  const across = 2 * Math.min(cx, width - cx) - 8;
  // Over the hub the arc is narrower the higher a text stands.
  if (way === "up") return Math.min(across, inside * 1.5);
  return Math.min(inside - edge, way === "left" ? cx - edge : width - cx - edge) - 4;
}

/** The reading with the line under it on another side of the hub than under it. */
function besideHub(
  input: Input,
  face: Face,
  said: GaugeSaid,
  way: Exclude<Way, "down">,
  scale: number,
): Text[] {
  const { style, theme } = input;
  const { cx, cy, r } = face;
  const edge = Math.min(style.number("needle.hub"), r * 0.16) + 6;
  const room = roomBeside(input, face, way, said.past, edge);
  const texts = textsOf(input, said.value);
  const most = Math.min(style.number("reading.size"), r * READING_SHARE);
  const fitted = fitText(texts, room, Math.max(SMALLEST, most * scale), 600);
  const main = texts.includes(fitted.text) ? fitted : { text: texts[texts.length - 1], size: SMALLEST };
  const word = said.past || (style.toggle("reading.word") ? said.word : "");
  const under = fitText([word], room, Math.max(SMALLEST, Math.min(12, main.size * 0.45)), 500);
  const line = under.text ? under.size * 1.35 : 0;
  const wide = Math.max(textWidth(main.text, main.size, 600), textWidth(under.text, under.size, 500)) / 2;
  const x = { left: cx - edge - wide, right: cx + edge + wide, up: cx }[way];
  const middle = way === "up" ? cy - edge - line - main.size * 0.6 : cy - line / 2;
  const look = { x, align: "middle" } as const;
  const fill = said.past ? theme.signal : theme.muted;
  const below = middle + main.size * 0.6 + line / 2;
  return [
    textMark("reading", "reading", { ...look, y: middle, ...main, weight: 600, fill: theme.ink }),
    ...(under.text ? [textMark("word", "reading", { ...look, y: below, ...under, weight: 500, fill })] : []),
  ];
}

/** The reading under the hub, and the line under it. */
function underHub(input: Input, face: Face, said: GaugeSaid, scale: number): Text[] {
  const most = Math.min(input.style.number("reading.size"), face.r * READING_SHARE);
  const wanted = Math.max(SMALLEST, most * scale);
  const fitted = fitReading(input, face, said, wanted);
  const { y, text, size } = fitted;
  const line = { x: face.cx, y, text, size, weight: 600, fill: input.theme.ink, align: "middle" } as const;
  const under = Math.max(SMALLEST, Math.min(12, wanted * 0.45));
  return [
    ...(text ? [textMark("reading", "reading", line)] : []),
    ...wordMarks(input, face, said, fitted, under),
  ];
}

/** Whether the needle, which points at an angle, passes a text at a place. */
function passes(
  { style }: Input,
  { cx, cy, r, inner }: Face,
  angle: number,
  { x, y, text, size }: Text,
): boolean {
  const form = style.choice("needle.form");
  if (form === "none") return false;
  const length = (inner * style.number("needle.length")) / 100;
  const wide = Math.min(style.number("needle.width"), r * 0.14) / 2 + 1;
  const from = form === "wedge" ? 0.78 : 0;
  const half = textWidth(text, size, 600) / 2 + wide;
  return Array.from({ length: 16 }, (_, i) =>
    polar(cx, cy, angle, length * (from + ((1 - from) * i) / 15)),
  ).some((p) => Math.abs(p.x - x) < half && Math.abs(p.y - y) < size * 0.45 + wide);
}

/** A plate in the colour of the sheet under a text. */
function plateUnder({ x, y, text, size }: Text, fill: string): Mark {
  const [width, height] = [textWidth(text, size, 600) + 4, size * 1.1];
  const box = { x: x - width / 2, y: y - height / 2, width, height };
  return { type: "rect", id: "reading plate", part: "reading", ...box, radii: [2, 2, 2, 2], fill };
}

/** A reading that stands clear nowhere is tried at these shares of its size. */
const READING_SCALES = [1, 0.7, 0.5];

/**
 * The reading at the hub: at the first of its places at which the arc, the needle and the frame leave it
 * whole. `top` is where the body begins.
 */
export function readingMarks(input: Input, face: Face, said: GaugeSaid, share: number, top: number): Mark[] {
  const { style, frame } = input;
  if (!style.toggle("reading.shown")) return [];
  const angle = face.start + face.sweep * clamp(share);
  const free = insideOf(input, face, said.past);
  const isClear = (text: Text) => {
    const half = textWidth(text.text, text.size, text.weight) / 2;
    const tall = text.size / 2;
    const isIn =
      text.x >= half && text.x + half <= frame.width && text.y >= top + tall && text.y + tall <= face.bottom;
    return isIn && isClearOfArc(face, free, { ...text, half }) && !passes(input, face, angle, text);
  };
  const ways = readingWays(face.start, face.sweep);
  let best: Text[] | null = null;
  for (const scale of READING_SCALES) {
    for (const way of ways) {
      const texts =
        way === "down" ? underHub(input, face, said, scale) : besideHub(input, face, said, way, scale);
      const clear = texts.filter(isClear);
      if (clear.length === texts.length) return texts;
      // Where nothing is clear of all, the line under the reading goes before the reading does.
      if (!best && clear.some((text) => text.id === "reading")) best = clear;
    }
    if (best) break;
  }
  if (best || ways[0] !== "down") return best ?? [];
  // Where the needle leaves the value no place it stands over it, on a plate; the smallest say it in words.
  return underHub(input, face, said, 1)
    .filter((text) => text.id === "reading")
    .flatMap((text) => [plateUnder(text, input.theme.sheet), text]);
}
