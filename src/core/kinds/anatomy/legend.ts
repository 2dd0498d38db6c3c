import { formatNumber } from "../../base/number-format";
import { counted } from "../../project/fixed-words";
import { shortApart } from "../../rows/digits";
import type { VisualRow } from "../../rows/visual-data";
import type { Box } from "../../scene/box";
import type { Theme } from "../../scene/colour";
import type { Mark } from "../../scene/marks";
import { shorten, textWidth } from "../../scene/text";
import type { Colours } from "./colours";
import { choice, part, toggle } from "./dial";
import type { SceneInput } from "./kind";
import type { LegendEntry } from "./legend-entry";
import type { SharedInput, SharedPart } from "./shared-parts";
import { symbolMark } from "./symbol";
import { textMark } from "./text-mark";

/** The legend, and where it stands at first. */
export const legendPart = (place: "auto" | "rules") =>
  part("legend", "Legend", [
    choice(
      "place",
      "Place",
      [
        ["auto", "where it fits"],
        ["rules", "for rules alone"],
        ["none", "none"],
        ["top", "above"],
        ["right", "right"],
        ["bottom", "below"],
      ],
      place,
    ),
    toggle("values", "With values", true),
  ]);

type LegendInput = SceneInput<ReturnType<typeof legendPart> | SharedPart>;

/** A legend's marks, and what it leaves of the body. */
export interface LaidLegend {
  marks: Mark[];
  body: Box;
}

/** What a legend says of rows: their colours, names and, where that was chosen, their values. */
export function rowEntries(
  { style, data, frame }: LegendInput,
  rows: { row: Pick<VisualRow, "key" | "label" | "value" | "format">; color: string }[],
): LegendEntry[] {
  const valued = style.toggle("legend.values");
  const extent = Math.max(frame.width, frame.height);
  const values = rows.map(({ row }) => row.value);
  const shared = shortApart(data.format, values, extent)[0];
  return rows.map(({ row, color }) => {
    const short = row.format ? shortApart(row.format, [row.value], extent)[0] : shared;
    return {
      key: row.key,
      names: row.key,
      color,
      label: row.label,
      value: valued ? formatNumber(row.value, row.format ?? data.format) : "",
      short: valued && short ? formatNumber(row.value, short) : "",
    };
  });
}

/** Entries with their values as short as they are, and without. */
const shortened = (entries: LegendEntry[]) => entries.map((e) => ({ ...e, value: e.short || e.value }));
const unvalued = (entries: LegendEntry[]) => entries.map((e) => ({ ...e, value: "" }));

/** What a legend says of series: their colours, names and, where that was chosen, their totals. */
export function seriesEntries({ style, data }: LegendInput, colours: Colours): LegendEntry[] {
  const valued = style.toggle("legend.values");
  return data.series.map((s, k) => {
    const total = formatNumber(s.total, s.format ?? data.format);
    return {
      key: s.key,
      color: colours.series(k),
      label: s.label,
      value: valued ? total : "",
      datum: {
        key: s.key,
        side: "series",
        title: s.label,
        lines: [{ label: s.format ? s.label : data.valueLabel, value: total }],
      },
    };
  });
}

/** The legend of a kind: of its rules where they give the colours, else of these entries. */
export function legendFor(
  input: LegendInput,
  colours: Colours,
  entries: LegendEntry[],
  body: Box,
  { place = input.style.choice("legend.place"), wide = false }: { place?: string; wide?: boolean } = {},
): LaidLegend {
  const ruled = colours.ruleLegend();
  if (place === "rules") return layLegend(input, "auto", ruled, body, wide);
  return layLegend(input, place, ruled.length ? ruled : entries, body, wide);
}

const SIZE = 11.5;
const ROW = 18;
/** Rows at the side come as near to each other as this before names are left out. */
const LEAST_ROW = 14.5;
/** A body smaller than this has no room for a legend. */
const LEAST = { width: 180, height: 84 };
const SWATCH = 10;

/** Draws a legend and gives what is left of the body. Frames too small for one go without. */
function layLegend(
  input: SharedInput,
  place: string,
  entries: LegendEntry[],
  body: Box,
  wide = false,
): LaidLegend {
  if (place === "none" || entries.length === 0 || body.width < LEAST.width || body.height < LEAST.height)
    return { marks: [], body };
  if (place === "right") return layRight(input, entries, body);
  const below = layBelow(input, entries, body);
  if (place === "bottom") return below;
  if (place === "top") {
    const taken = body.height - below.body.height;
    const lift = body.height - taken + 8;
    return { marks: below.marks.map((m) => moved(m, -lift)), body: { ...below.body, y: body.y + taken } };
  }
  // Bands use a width that a legend at their side would take.
  if (place === "auto" && wide) return below;
  // Where it fits: the place that leaves the larger square for the picture.
  const right = layRight(input, entries, body);
  const square = (b: Box) => Math.min(b.width, b.height);
  return square(right.body) >= square(below.body) ? right : below;
}

/** A legend's mark, higher or lower. */
function moved(mark: Mark, dy: number): Mark {
  if (mark.type === "circle") return { ...mark, cy: mark.cy + dy };
  return "y" in mark ? { ...mark, y: mark.y + dy } : mark;
}

/** Where an entry stands: its left edge and middle, its width, and whether its value stands at its end. */
interface EntryPlace {
  x: number;
  y: number;
  room: number;
  valueAtEnd: boolean;
}

/** An entry's marks, which all stand for what it names. */
const entryMarks = (entry: LegendEntry, place: EntryPlace, theme: Theme): Mark[] =>
  drawnEntry(entry, place, theme).map((mark) => ({
    ...mark,
    ...(entry.datum ? { datum: entry.datum } : {}),
    ...(entry.names ? { names: entry.names } : {}),
  }));

function drawnEntry(e: LegendEntry, { x, y, room, valueAtEnd }: EntryPlace, theme: Theme): Mark[] {
  const valueWidth = e.value ? textWidth(e.value, SIZE, 500) + 8 : 0;
  const left = x + SWATCH + 6;
  const label = shorten(e.label, room - SWATCH - 6 - valueWidth, SIZE, 400);
  const symbol =
    e.symbol &&
    symbolMark(`swatch:${e.key}`, "legend", e.symbol, { x: x + SWATCH / 2, y, r: SWATCH / 2, fill: e.color });
  const swatch: Mark = symbol || {
    type: "rect",
    id: `swatch:${e.key}`,
    part: "legend",
    x,
    y: y - SWATCH / 2,
    width: SWATCH,
    height: SWATCH,
    radii: [3, 3, 3, 3],
    fill: e.color,
  };
  const name = textMark(`legend:${e.key}`, "legend", {
    x: left,
    y,
    text: label,
    size: SIZE,
    weight: 400,
    fill: theme.ink,
  });
  if (!e.value) return [swatch, name];
  const value = textMark(`legendvalue:${e.key}`, "legend", {
    x: valueAtEnd ? x + room : left + textWidth(label, SIZE, 400) + 8,
    y,
    text: e.value,
    size: SIZE,
    weight: 500,
    fill: theme.muted,
    align: valueAtEnd ? "end" : "start",
  });
  return [swatch, name, value];
}

/** A name keeps at least so many pixels beside its value. */
const LEAST_NAME = 52;

/** Whether beside their values at most a quarter of the names are cut, and all are still told apart. */
function fewAreCut(entries: LegendEntry[], room: number): boolean {
  const rooms = entries.map((e) => room - SWATCH - 6 - (e.value ? textWidth(e.value, SIZE, 500) + 8 : 0));
  const names = entries.map((e, i) => shorten(e.label, rooms[i], SIZE, 400));
  const cut = names.filter((name, i) => name !== entries[i].label).length;
  return (
    cut <= Math.max(1, entries.length / 4) &&
    Math.min(...rooms) >= LEAST_NAME &&
    new Set(names).size === new Set(entries.map((e) => e.label)).size
  );
}

/** How wide an entry is with its whole name. */
const widthOf = ({ label, value }: LegendEntry): number =>
  SWATCH + 6 + textWidth(label, SIZE, 400) + (value ? 8 + textWidth(value, SIZE, 500) : 0);

function layRight({ theme, data }: SharedInput, wanted: LegendEntry[], body: Box): LaidLegend {
  const widestAllowed = body.width * 0.4;
  const widest = (entries: LegendEntry[]) => Math.max(...entries.map(widthOf));
  // Names go before values: where both do not fit, the values are shortened, then go; the tooltip has them.
  const fits = (entries: LegendEntry[]) =>
    widest(entries) <= widestAllowed || fewAreCut(entries, widestAllowed);
  const entries = [wanted, shortened(wanted)].find(fits) ?? unvalued(wanted);
  const room = Math.min(widest(entries) + 2, widestAllowed);
  const pitch = Math.max(LEAST_ROW, Math.min(ROW, body.height / entries.length));
  const most = Math.max(1, Math.floor((body.height + 1e-6) / pitch));
  const shown = entries.length > most ? entries.slice(0, most - 1) : entries;
  const lines = shown.length + (shown.length < entries.length ? 1 : 0);
  const x = body.x + body.width - room;
  const top = body.y + (body.height - lines * pitch) / 2 + pitch / 2;
  const marks = shown.flatMap((e, i) =>
    entryMarks(e, { x, y: top + i * pitch, room, valueAtEnd: true }, theme),
  );
  if (lines > shown.length)
    marks.push(
      textMark("legend:more", "legend", {
        x,
        y: top + shown.length * pitch,
        text: counted(data.words.more, entries.length - shown.length),
        size: SIZE,
        weight: 400,
        fill: theme.muted,
      }),
    );
  return { marks, body: { ...body, width: body.width - room - 16 } };
}

function layBelow({ theme, data }: SharedInput, entries: LegendEntry[], body: Box): LaidLegend {
  const most = Math.max(1, Math.floor((body.height * 0.3) / ROW));
  const rows: { entry: LegendEntry; x: number; room: number }[][] = [[]];
  let x = 0;
  let hidden = 0;
  for (const entry of entries) {
    const room = Math.min(widthOf(entry), body.width);
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
      entryMarks(entry, { x: left + at, y: top + r * ROW, room, valueAtEnd: false }, theme),
    );
  });
  if (hidden)
    marks.push(
      textMark("legend:more", "legend", {
        x: body.x + body.width / 2,
        y: top + rows.length * ROW,
        text: counted(data.words.more, hidden),
        size: SIZE,
        weight: 400,
        fill: theme.muted,
        align: "middle",
      }),
    );
  return { marks, body: { ...body, height: body.height - height - 8 } };
}
