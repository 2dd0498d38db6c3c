import type { Box } from "../../scene/box";
import type { Theme } from "../../scene/colour";
import type { Mark } from "../../scene/marks";
import { shorten, textWidth } from "../../scene/text";
import { choice, part, toggle } from "./dial";
import type { LegendEntry } from "./legend-entry";
import { andMore } from "./more";
import { symbolMark } from "./symbol";
import { textMark } from "./text-mark";

/** The legend; without the toggle for values where its entries have none. */
export const legendPart = (place: "auto" | "none", values = true) =>
  part("legend", "Legend", [
    choice(
      "place",
      "Place",
      [
        ["auto", "where it fits"],
        ["none", "none"],
        ["top", "above"],
        ["right", "right"],
        ["bottom", "below"],
      ],
      place,
    ),
    ...(values ? [toggle("values", "With values", true)] : []),
  ]);

const SIZE = 11.5;
const ROW = 18;
const SWATCH = 10;

/** Draws a legend and gives what is left of the body. Frames too small for one go without. */
export function layLegend(
  place: string,
  entries: LegendEntry[],
  body: Box,
  theme: Theme,
  wide = false,
): { marks: Mark[]; body: Box } {
  if (place === "none" || entries.length === 0 || body.width < 180 || body.height < 110)
    return { marks: [], body };
  const width = (e: LegendEntry) =>
    SWATCH + 6 + textWidth(e.label, SIZE, 400) + (e.value ? 8 + textWidth(e.value, SIZE, 500) : 0);
  if (place === "right") return layRight(entries, body, theme, Math.max(...entries.map(width)));
  const below = layBelow(entries, body, theme, width);
  if (place === "bottom") return below;
  if (place === "top") {
    const taken = body.height - below.body.height;
    const lift = body.height - taken + 8;
    return { marks: below.marks.map((m) => moved(m, -lift)), body: { ...below.body, y: body.y + taken } };
  }
  // Bands use a width that a legend at their side would take.
  if (place === "auto" && wide) return below;
  // Where it fits: the place that leaves the larger square for the picture.
  const right = layRight(entries, body, theme, Math.max(...entries.map(width)));
  const square = (b: Box) => Math.min(b.width, b.height);
  return square(right.body) >= square(below.body) ? right : below;
}

/** A legend's mark, higher or lower. */
function moved(mark: Mark, dy: number): Mark {
  if (mark.type === "circle") return { ...mark, cy: mark.cy + dy };
  return "y" in mark ? { ...mark, y: mark.y + dy } : mark;
}

function entryMarks(
  e: LegendEntry,
  x: number,
  y: number,
  room: number,
  theme: Theme,
  valueAtEnd: boolean,
): Mark[] {
  const valueWidth = e.value ? textWidth(e.value, SIZE, 500) + 8 : 0;
  const label = shorten(e.label, room - SWATCH - 6 - valueWidth, SIZE, 400);
  const symbol =
    e.symbol &&
    symbolMark(`swatch:${e.key}`, "legend", e.symbol, { x: x + SWATCH / 2, y, r: SWATCH / 2, fill: e.color });
  const marks: Mark[] = [
    symbol || {
      type: "rect",
      id: `swatch:${e.key}`,
      part: "legend",
      x,
      y: y - SWATCH / 2,
      width: SWATCH,
      height: SWATCH,
      radii: [3, 3, 3, 3],
      fill: e.color,
    },
    textMark(`legend:${e.key}`, "legend", {
      x: x + SWATCH + 6,
      y,
      text: label,
      size: SIZE,
      weight: 400,
      fill: theme.ink,
    }),
  ];
  if (e.value) {
    const at = valueAtEnd ? x + room : x + SWATCH + 6 + textWidth(label, SIZE, 400) + 8;
    marks.push(
      textMark(`legendvalue:${e.key}`, "legend", {
        x: at,
        y,
        text: e.value,
        size: SIZE,
        weight: 500,
        fill: theme.muted,
        align: valueAtEnd ? "end" : "start",
      }),
    );
  }
  return marks;
}

function layRight(
  entries: LegendEntry[],
  body: Box,
  theme: Theme,
  widest: number,
): { marks: Mark[]; body: Box } {
  const widestAllowed = body.width * 0.45;
  // Names go before values: where both do not fit, the values go, and the tooltip has them.
  if (widest > widestAllowed && entries.some((e) => e.value))
    return layLegend(
      "right",
      entries.map((e) => ({ ...e, value: "" })),
      body,
      theme,
    );
  const room = Math.min(widest + 2, widestAllowed);
  const most = Math.max(1, Math.floor(body.height / ROW));
  const shown = entries.length > most ? entries.slice(0, most - 1) : entries;
  const lines = shown.length + (shown.length < entries.length ? 1 : 0);
  const x = body.x + body.width - room;
  const top = body.y + (body.height - lines * ROW) / 2 + ROW / 2;
  const marks = shown.flatMap((e, i) => entryMarks(e, x, top + i * ROW, room, theme, true));
  if (lines > shown.length)
    marks.push(
      textMark("legend:more", "legend", {
        x,
        y: top + shown.length * ROW,
        text: andMore(entries.length - shown.length),
        size: SIZE,
        weight: 400,
        fill: theme.muted,
      }),
    );
  return { marks, body: { ...body, width: body.width - room - 16 } };
}

function layBelow(
  entries: LegendEntry[],
  body: Box,
  theme: Theme,
  width: (e: LegendEntry) => number,
): { marks: Mark[]; body: Box } {
  const most = Math.max(1, Math.floor((body.height * 0.3) / ROW));
  const rows: { entry: LegendEntry; x: number; room: number }[][] = [[]];
  let x = 0;
  let hidden = 0;
  for (const entry of entries) {
    const room = Math.min(width(entry), body.width);
    if (x > 0 && x + room > body.width) {
      if (rows.length === most) {
        hidden = entries.length - rows.flat().length;
        break;
      }
      rows.push([]);
      x = 0;
    }
    rows[rows.length - 1].push({ entry, x, room });
    x += room + 14;
  }
  const height = (rows.length + (hidden ? 1 : 0)) * ROW;
  const top = body.y + body.height - height + ROW / 2;
  const marks = rows.flatMap((row, r) => {
    const total = row[row.length - 1].x + row[row.length - 1].room;
    const left = body.x + (body.width - total) / 2;
    return row.flatMap(({ entry, x: at, room }) =>
      entryMarks(entry, left + at, top + r * ROW, room, theme, false),
    );
  });
  if (hidden)
    marks.push(
      textMark("legend:more", "legend", {
        x: body.x + body.width / 2,
        y: top + rows.length * ROW,
        text: andMore(hidden),
        size: SIZE,
        weight: 400,
        fill: theme.muted,
        align: "middle",
      }),
    );
  return { marks, body: { ...body, height: body.height - height - 8 } };
}
