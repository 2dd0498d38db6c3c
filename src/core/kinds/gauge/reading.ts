import { shortFormats } from "../../base/number-format";
import { fillTemplate } from "../../base/template";
import type { Mark } from "../../scene/marks";
import { fitText, SMALLEST, textWidth } from "../../scene/text";
import type { SceneInput } from "../anatomy/kind";
import { textMark } from "../anatomy/text-mark";
import { ENDS_FROM, type Face, plainDrop, readingDrop } from "./face";
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
  const shortened = shortFormats(data.format).map((format) => ({ ...data.names, value: { value, format } }));
  return [data.names, ...shortened].map((names) => fillTemplate(style.template("reading.text"), names));
}

/** A place of the reading: its middle, the room it has there, and what fits. */
interface Fitted {
  y: number;
  room: number;
  text: string;
  size: number;
}

/** The width that the arc leaves at a height below the hub, both sides of it. */
function chordAt({ style }: Input, { r, inner, sweep }: Face, past: string, dy: number): number {
  // A second lap runs within the arc.
  const lapped = style.choice("arc.past") === "lap" && past !== "";
  const free = lapped ? inner - Math.max(2, (r - inner) * 0.3) - 4 : inner;
  if (sweep <= 200 || dy >= free) return Number.POSITIVE_INFINITY;
  return 2 * Math.sqrt(Math.max(0, free ** 2 - dy ** 2)) * 0.92;
}

/**
 * The reading as large and as clear as it gets. To be read whole goes before standing clear of the needle,
 * and then before size: a smaller text stands higher, where the arc is wider.
 */
function fitReading(input: Input, face: Face, { value, past }: GaugeSaid, wanted: number): Fitted {
  const { style, data, frame } = input;
  const { cx, cy, r, inner } = face;
  const hub = Math.min(style.number("needle.hub"), r * 0.16);
  const half = textWidth(fillTemplate(style.template("reading.text"), data.names), wanted, 600) / 2;
  const texts = textsOf(input, value);
  const side = 2 * Math.min(cx, frame.width - cx) - 8;
  const roomAt = (dy: number) =>
    Math.min(frame.width - 8, Math.max(chordAt(input, face, past, dy), inner * 0.9), side);
  const place = (drop: number, size: number): Fitted => {
    const dy = Math.min(drop, frame.height - size * 0.5 - cy);
    return { y: cy + dy, room: roomAt(dy), ...fitText(texts, roomAt(dy), size, 600) };
  };
  const clear = readingDrop(style, hub, { size: wanted, half: Math.min(half, inner * 0.62), under: 0 });
  const isFree = chordAt(input, face, past, clear) >= half * 1.5;
  const first = place(isFree ? clear : plainDrop(hub, wanted), wanted);
  if (texts.includes(first.text)) return first;
  const sizes = [wanted * 0.8, wanted * 0.65, SMALLEST].map((size) => Math.max(SMALLEST, size));
  const places = sizes.map((size) => place(plainDrop(hub, size), size));
  const whole = places.find((p) => texts.includes(p.text));
  // The smallest dials have no room inside for their value: it is written whole all the same.
  return whole ?? { ...places[places.length - 1], text: texts[texts.length - 1], size: SMALLEST };
}

/** The line under the reading: the word of the zone, or that the value lies beyond the scale. */
function wordMarks(
  input: Input,
  face: Face,
  { word, past }: GaugeSaid,
  fitted: Fitted,
  size: number,
): Mark[] {
  const { style, theme, frame } = input;
  const text = past || (style.toggle("reading.word") ? word : "");
  const y = fitted.y + fitted.size * 0.6 + size * 0.75;
  if (!text || y + size * 0.6 > frame.height) return [];
  // Under the reading the arc's ends are the nearest neighbours.
  const isEnded = face.r > ENDS_FROM && style.toggle("scale.ends");
  const between = isEnded ? 2 * (face.r * 0.86 - 14) : Number.POSITIVE_INFINITY;
  const room = Math.max(fitted.room, Math.min(frame.width - 8, between));
  const said = fitText([text], room, size, 500);
  const fill = past ? theme.signal : theme.muted;
  const line = { x: face.cx, y, ...said, weight: 500, fill, align: "middle" } as const;
  return said.text ? [textMark("word", "reading", line)] : [];
}

/** The reading under the hub, and the line under it. */
export function readingMarks(input: Input, face: Face, said: GaugeSaid): Mark[] {
  const { style, theme } = input;
  if (!style.toggle("reading.shown")) return [];
  const wanted = Math.max(SMALLEST, Math.min(style.number("reading.size"), face.r * 0.36));
  const fitted = fitReading(input, face, said, wanted);
  const { y, text, size } = fitted;
  const line = { x: face.cx, y, text, size, weight: 600, fill: theme.ink, align: "middle" } as const;
  const under = Math.max(SMALLEST, Math.min(12, wanted * 0.45));
  return [
    ...(text ? [textMark("reading", "reading", line)] : []),
    ...wordMarks(input, face, said, fitted, under),
  ];
}
