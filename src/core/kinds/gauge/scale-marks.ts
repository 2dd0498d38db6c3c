import { formatNumber } from "../../base/number-format";
import type { Mark, Text } from "../../scene/marks";
import { SMALLEST, textWidth } from "../../scene/text";
import { polar } from "../anatomy/angles";
import type { SceneInput } from "../anatomy/kind";
import { type Scale, shareOf } from "../anatomy/scale";
import { textMark } from "../anatomy/text-mark";
import { ENDS_FROM, type Face, isClearOfArc } from "./face";
import type { GaugePart } from "./parts";
import type { Stretch } from "./zones";

type Input = SceneInput<GaugePart>;

/** A face needs this radius for the words of its zones. */
const WORDS_FROM = 70;

function tickMarks({ style, theme }: Input, { cx, cy, inner, start, sweep }: Face): Mark[] {
  const ticks = style.number("scale.ticks");
  if (ticks === 0) return [];
  return Array.from({ length: ticks + 1 }, (_, i) => {
    const angle = start + (sweep * i) / ticks;
    const [p, q] = [polar(cx, cy, angle, inner - 3), polar(cx, cy, angle, inner - 8)];
    return {
      type: "line",
      id: `tick:${i}`,
      part: "scale",
      stroke: theme.muted,
      strokeWidth: 1,
      points: [
        [p.x, p.y],
        [q.x, q.y],
      ],
    };
  });
}

/** The number at an end of the scale: whole where it is, and short where it is large. */
function endText({ data }: Input, value: number): string {
  const { format } = data;
  const isWhole = Number.isInteger(format.style === "percent" ? value * 100 : value);
  return formatNumber(value, {
    ...format,
    decimals: isWhole ? 0 : format.decimals,
    units: Math.abs(value) >= 1e4 ? "automatic" : format.units,
  });
}

/** Just past an end of the arc: under it where the arc comes down, beside it where it does not. */
function endLabel(input: Input, face: Face, end: "minimum" | "maximum", value: number, size: number): Text {
  const { cx, cy, r, inner, start, sweep } = face;
  const angle = end === "minimum" ? start : start + sweep;
  const at = polar(cx, cy, angle, (r + inner) / 2);
  const text = endText(input, value);
  const half = textWidth(text, size, 400) / 2;
  const along = polar(0, 0, angle + (end === "minimum" ? -90 : 90), 1);
  const isDown = Math.abs(along.y) > 0.3;
  const wanted = isDown ? at.x : at.x + along.x * (half + 4);
  const below = at.y + (isDown ? Math.sign(along.y) : along.y) * (size * 0.6 + 5);
  return textMark(end, "scale", {
    x: Math.min(Math.max(wanted, half + 2), input.frame.width - half - 2),
    y: Math.min(below, face.bottom - size * 0.5),
    text,
    size,
    weight: 400,
    fill: input.theme.muted,
    align: "middle",
  });
}

/** The angle of a zone's word: the middle of its zone, or clear of the target's mark. */
function wordAngle({ start, sweep }: Face, { from, until }: Stretch, target: number | null): number {
  const near = [0.5, 0.25, 0.75].map((part) => from + (until - from) * part);
  const isClear = (share: number) => target === null || Math.abs(share - target) * sweep > 14;
  return start + sweep * (near.find(isClear) ?? near[0]);
}

/** How far from the arc a word can stand, in pixels: beside a slant, a long one would lie on it. */
const WORD_GAPS = [6, 10, 15];

/** The word of a zone outside the arc, where the zone and the frame have room for it. */
function wordMark(input: Input, face: Face, zone: Stretch, target: number | null, size: number): Text[] {
  const { frame, theme } = input;
  const { cx, cy, r, sweep } = face;
  const half = textWidth(zone.word, size, 500) / 2;
  const arc = (sweep * (zone.until - zone.from) * Math.PI * r) / 180;
  if (!zone.word || 2 * half > arc + 14) return [];
  const angle = wordAngle(face, zone, target);
  const out = polar(0, 0, angle, 1);
  const places = WORD_GAPS.map((gap) => {
    const at = polar(cx, cy, angle, r + gap);
    return { x: at.x + out.x * half, y: at.y + (out.y * size) / 2 };
  });
  const place = places.find((p) => isClearOfArc(face, face.inner, { ...p, half, size }));
  if (!place) return [];
  const { x, y } = place;
  if (x - half < 4 || x + half > frame.width - 4) return [];
  if (y - size / 2 < 0 || y + size / 2 > face.bottom) return [];
  const line = { x, y, text: zone.word, size, weight: 500, fill: theme.muted, align: "middle" } as const;
  return [textMark(`word:${zone.at}`, "zones", line)];
}

/** Ticks, the numbers at the ends of the scale, and the words of the zones. */
export function scaleMarks(input: Input, face: Face, scale: Scale, zones: Stretch[]): Mark[] {
  const { style, data } = input;
  const size = Math.max(SMALLEST, Math.min(11, face.r * 0.12));
  const target = data.target === null || !style.toggle("target.shown") ? null : shareOf(data.target, scale);
  const isEnded = style.toggle("scale.ends") && face.r > ENDS_FROM;
  const isWorded = style.toggle("zones.words") && face.r > WORDS_FROM;
  return [
    ...tickMarks(input, face),
    ...(isEnded
      ? (["minimum", "maximum"] as const).map((end) => endLabel(input, face, end, scale[end], size))
      : []),
    // The largest zone has its word first, where those of all have no room.
    ...(isWorded
      ? zones
          .toSorted((a, b) => b.until - b.from - (a.until - a.from))
          .flatMap((zone) => wordMark(input, face, zone, target, size))
      : []),
  ];
}
