import { formatNumber } from "../../base/number-format";
import { fillTemplate } from "../../base/template";
import { counted } from "../../project/fixed-words";
import type { VisualRow } from "../../rows/visual-data";
import type { Box } from "../../scene/box";
import type { Handle, Mark } from "../../scene/marks";
import { LINE_HEIGHT, textWidth, wrap } from "../../scene/text";
import { boxInSector, liftOf, polar } from "../anatomy/angles";
import { Colours } from "../anatomy/colours";
import { isNamed, rowDatum, strength } from "../anatomy/datum";
import { drawing } from "../anatomy/drawing";
import { footNote, layFrame } from "../anatomy/frame";
import { shareText } from "../anatomy/goal";
import type { SceneInput } from "../anatomy/kind";
import { labelWriter } from "../anatomy/labels";
import { legendFor, rowEntries } from "../anatomy/legend";
import { haveShares, openWords } from "../anatomy/rest";
import { type Centre, layCentre, startPlace } from "../anatomy/rings";
import { textMark } from "../anatomy/text-mark";
import { measuresNamed, titleOf } from "../anatomy/titles";
import { captionsOf, namesFor, roundReading } from "../anatomy/visual-reading";
import { type OutsideLabel, outsideLabels, outsideRoom } from "./outside-labels";
import type { DonutPart } from "./parts";
import { type OpenStretch, type Ring, ringsOf, type Slice, slicesOf, sweepOf } from "./slices";

type Input = SceneInput<DonutPart>;
type Write = (slice: Slice, ring?: Ring) => string[][];

interface Laid {
  marks: Mark[];
  /** Legend and foot, over the rings. */
  over: Mark[];
  body: Box;
  /** The slices of the value itself, which the reading tells. */
  slices: Slice[];
  centre: Centre;
  rings: Ring[];
  /** The labels beside the ring; null where labels stand inside. */
  outside: OutsideLabel[] | null;
  write: Write;
  left: string;
}

/** Whether labels can stand beside the ring; beside several, all rows need a slice of the outermost. */
function isOutside({ style, data }: Input, body: Box): boolean {
  const isLed = data.series.length <= 1 || data.rows.every((r) => (r.cells[0] ?? 0) > 0);
  return (
    style.choice("labels.place") === "outside" &&
    style.choice("labels.content") !== "none" &&
    body.width >= 240 &&
    body.height >= 120 &&
    isLed
  );
}

/** Where the legend stands: where it fits, unless names beside the ring say the same. */
function legendPlace(input: Input, body: Box): string {
  const place = input.style.choice("legend.place");
  const { content, several } = {
    content: input.style.choice("labels.content"),
    several: input.data.series.length > 1,
  };
  const isNamed = isOutside(input, body) && (several || content.includes("category"));
  return place === "auto" && isNamed ? "rules" : place;
}

/** Beside several rings the names stand alone, at the slices of the outermost: a value would be of one ring. */
function namesBeside({ style }: Input, slices: Slice[], body: Box): OutsideLabel[] {
  const size = style.number("labels.size");
  return slices.map(({ row, share, start, end }) => {
    const lines = wrap(row.label, body.width * 0.24, size, 500, 2);
    return { key: row.key, lines, names: lines.length, share, angle: ((start + end) / 2 + 720) % 360 };
  });
}

/** What stands beside the ring, of the slices that are large enough to be labelled. */
function besideOf({ style }: Input, slices: Slice[], write: Write, body: Box): OutsideLabel[] {
  const size = style.number("labels.size");
  return slices
    .filter((s) => s.share * 100 >= style.number("labels.least"))
    .flatMap((s) =>
      write(s)
        .slice(0, 1)
        .map(([first, ...rest]) => {
          const names = wrap(first, body.width * 0.24, size, 500, 2);
          const angle = ((s.start + s.end) / 2 + 720) % 360;
          const lines = [...names, ...rest];
          return { key: s.row.key, lines, names: names.length, share: s.share, angle };
        }),
    );
}

/** The labels beside the ring, or the names beside the outermost of several. */
const outsideOf = (input: Input, slices: Slice[], colours: Colours, write: Write, body: Box) =>
  input.data.series.length > 1
    ? namesBeside(
        input,
        slicesOf(input, colours, (row) => row.cells[0] ?? null, input.data.series[0].total).all,
        body,
      )
    : besideOf(input, slices, write, body);

const asEntry = ({ row, value, color }: Slice) => ({ row: { ...row, value }, color });

/** The rows that have a slice on some ring. */
const rowsOnRings = ({ data }: Input, colours: Colours) =>
  data.rows
    .map((row, i) => ({ row, color: colours.of(row, i) }))
    .filter(({ row }) => row.cells.some((cell) => (cell ?? 0) > 0));

function lay(input: Input): Laid {
  const { data, style, theme } = input;
  const { marks, body: whole } = layFrame(input);
  const colours = new Colours(input);
  const { all: slices, open } = slicesOf(input, colours, (row) => row.value, data.total);
  const left = leftOut(input, open);
  const order =
    data.series.length > 1 ? `From the outside in: ${data.series.map((s) => s.label).join(", ")}` : "";
  const noted = footNote(whole, theme, [order, left].filter(Boolean).join(". "));
  const entries = rowEntries(input, data.series.length ? rowsOnRings(input, colours) : slices.map(asEntry));
  const place = legendPlace(input, whole);
  const { body, marks: legend } = legendFor(input, colours, entries, noted.body, { place });
  const writer = labelWriter(input, style.choice("labels.content"));
  const write: Write = (s, ring) => {
    const format = ring?.format ?? s.row.format;
    const hasShares = ring?.hasShares ?? haveShares(data);
    return writer({ ...s.row, value: s.value, format }, hasShares ? s.value / s.share : null);
  };
  const outside = isOutside(input, body) ? outsideOf(input, slices, colours, write, body) : null;
  const { from, sweep } = sweepOf(style);
  // The segment under the pointer grows by at most four pixels, which stay free around the ring.
  const side = outside ? outsideRoom(outside, body, style.number("labels.size")) : 4;
  const centre = layCentre(body, from, sweep, side, outside ? 12 : 4);
  const rings = ringsOf(input, colours, centre);
  return { marks, over: [...legend, ...noted.marks], body, slices, centre, rings, outside, write, left };
}

/** A ring of which no part is above zero: its track. */
function emptyRing({ style, theme }: Input, { key, cx, cy, r, inner }: Ring): Mark {
  const { from, to } = sweepOf(style);
  return {
    type: "sector",
    id: `track:${idOf(key)}`,
    part: "arc",
    cx,
    cy,
    inner,
    outer: r,
    start: from,
    end: to,
    inset: 0,
    corners: [0, 0, 0, 0],
    fill: theme.track,
    surface: "track",
  };
}

/** The stretch of the whole that has no row: as a track is drawn, so that the slices do not fill the ring. */
const openStretch = (input: Input, ring: Ring, { start, end }: OpenStretch): Mark => {
  const inset = input.style.number("arc.gap") / 2;
  return { ...emptyRing(input, ring), id: `open:${idOf(ring.key)}`, start, end, inset } as Mark;
};
const idOf = (key: Ring["key"]) => (key === null ? "" : `${key}:`);

function sliceMark(input: Input, { rings, centre }: Laid, ring: Ring, s: Slice): Mark {
  const { style, theme, focus } = input;
  const { from, to, sweep } = sweepOf(style);
  const corner = style.number("arc.corner");
  const border = style.number("arc.border");
  const grown = s.row.key === focus?.row && rings.length === 1 ? Math.min(4, centre.r * 0.03) : 0;
  const isAlone = ring.all.length === 1 && sweep === 360;
  const { key, label, format, hasShares } = ring;
  const lines = hasShares
    ? [{ label: input.data.words.share, value: shareText(s.share, format ?? input.data.format) }]
    : [];
  const whole = hasShares ? s.value / s.share : null;
  return {
    type: "sector",
    id: `slice:${idOf(ring.key)}${s.row.key}`,
    part: "arc",
    cx: ring.cx,
    cy: ring.cy,
    inner: ring.inner,
    outer: ring.r + grown,
    start: s.start,
    end: s.end,
    inset: isAlone ? 0 : style.number("arc.gap") / 2,
    corners: [corner, corner, corner, corner],
    fill: s.color,
    ...(border > 0 ? { stroke: style.colour("arc.borderColour", theme.ink), strokeWidth: border } : {}),
    opacity: strength(input, s.row.key, { series: ring.key ?? undefined }),
    shows: {
      row: s.row.key,
      ...(ring.key ? { series: ring.key } : {}),
      value: s.value,
      channel: "angle",
    },
    surface: "data",
    grow: "middle",
    whole: { from, to, axis: "angle" },
    datum: rowDatum(input, { ...s.row, value: s.value }, lines, {
      whole,
      ...(key === null ? {} : { series: { key, label, ...(format ? { format } : {}) } }),
    }),
  };
}

/**
 * Labels within a ring, in the wording that their segment has room for. The largest are served first: where
 * one finds no room, none smaller is labelled, so that no label stands among silent larger ones.
 */
function insideLabels(input: Input, ring: Ring, write: Write): Mark[] {
  const { style, surface } = input;
  const size = style.number("labels.size");
  const middle = ring.inner === 0 ? ring.r * 0.64 : (ring.inner + ring.r) / 2;
  const marks: Mark[] = [];
  const wanted = ring.all
    .filter((slice) => slice.share * 100 >= style.number("labels.least"))
    .toSorted((a, b) => b.share - a.share);
  let labelled = 0;
  for (const slice of wanted) {
    const fits = (wording: string[]) => {
      const width = Math.max(...wording.map((l) => textWidth(l, size, 600))) + 4;
      const sector = { ...slice, inner: ring.inner, outer: ring.r };
      return boxInSector(sector, middle, { width, height: wording.length * size * LINE_HEIGHT });
    };
    const lines = write(slice, ring).find(fits);
    if (!lines) break;
    labelled++;
    // Segments that step back while another is under the pointer are too pale to write on.
    if (strength(input, slice.row.key) < 1) continue;
    const { x, y } = polar(ring.cx, ring.cy, (slice.start + slice.end) / 2, middle);
    const look = { size, weight: 600, fill: surface.inkOn(slice.color), align: "middle" } as const;
    for (const [k, text] of lines.entries()) {
      const line = { x, y: y + (k - (lines.length - 1) / 2) * size * LINE_HEIGHT, text, ...look };
      marks.push(textMark(`label${k}:${ring.key}:${slice.row.key}`, "labels", line));
    }
  }
  // One label among silent peers says less than none.
  return labelled === 1 && wanted.length > 2 ? [] : marks;
}

function labelMarks(input: Input, laid: Laid): Mark[] {
  const { style, theme, surface } = input;
  const { outside, rings, body, centre, write } = laid;
  const size = style.number("labels.size");
  const leaders = style.toggle("labels.leaders");
  if (outside) return outsideLabels(outside, rings[0], { box: body, size, theme, leaders });
  const isInside = style.choice("labels.content") !== "none" && centre.r > 30 && surface.carriesText;
  return isInside ? rings.flatMap((ring) => insideLabels(input, ring, write)) : [];
}

/** The reading is that of the slice under the pointer, on its own ring; of a row or of the whole elsewhere. */
function reading(input: Input, { slices, rings, body }: Laid): Mark[] {
  const { style, data, focus } = input;
  const innermost = rings[rings.length - 1];
  const ring = rings.find((r) => r.key !== null && r.key === focus?.series);
  const focused = (ring?.all ?? slices).find((s) => s.row.key === focus?.row);
  const format = ring?.format ?? focused?.row.format ?? data.format;
  const value = focused ? focused.value : data.total;
  const names = namesFor(input, { total: { value, format }, value: { value, format } });
  // Beside rings of several measures a value has to say of which it is.
  const of = ring?.label ?? (data.series.some((s) => s.format) ? data.valueLabel : "");
  const share = focused && (ring?.hasShares ?? haveShares(data)) ? shareText(focused.share, format) : "";
  const whole = { ...names[0], measure: data.series.length ? data.valueLabel : measuresNamed(data) };
  const captions = focused
    ? of
      ? [...captionsOf([`${focused.row.label} · ${of}`, share]), of]
      : captionsOf([focused.row.label, share])
    : [fillTemplate(style.template("reading.caption"), whole)];
  // A half ring has its reading within its own half.
  const { from, sweep } = sweepOf(style);
  const { cx: x, cy: y, inner: room } = innermost;
  const place = { x, y, room, within: body, lift: liftOf(from, sweep) };
  return roundReading(input, place, { row: focused?.row, names, captions });
}

function draw(input: Input, laid: Laid): Mark[] {
  const slices = laid.rings.flatMap((ring) =>
    ring.all.length
      ? [
          ...(ring.open ? [openStretch(input, ring, ring.open)] : []),
          ...ring.all.map((s) => sliceMark(input, laid, ring, s)),
        ]
      : [emptyRing(input, ring)],
  );
  return [...laid.marks, ...slices, ...laid.over, ...labelMarks(input, laid), ...reading(input, laid)];
}

function handles({ style }: Input, { centre, rings }: Laid): Handle[] {
  const { start, sweep, sign } = sweepOf(style);
  const angle = start + (sign * sweep) / 2;
  const { cx, cy, r } = centre;
  return [
    style.handle("arc.hole", {
      ...polar(cx, cy, angle, rings[rings.length - 1].inner),
      track: (from, to) => ({ type: "radial", cx, cy, angle, r0: (r * from) / 100, r1: (r * to) / 100 }),
    }),
    style.handle("arc.start", startPlace(start, centre)),
  ];
}

function say(input: Input, { rings, left }: Laid): string {
  const { data } = input;
  const said = rings.map(({ label, all, hasShares, format = data.format }) => {
    const leading = all
      .filter(({ row }) => isNamed(row))
      .toSorted((a, b) => b.share - a.share)
      .slice(0, 3)
      .map((s) => `${s.row.label} ${hasShares ? shareText(s.share, format) : formatNumber(s.value, format)}`);
    return `${label ? `${label}: ` : ""}${all.length} ${all.length === 1 ? "segment" : "segments"}${leading.length ? `, the largest ${leading.join(", ")}` : ""}`;
  });
  // Rings of several measures have each its own.
  const total = data.series.some((s) => s.format) ? "" : `total ${formatNumber(data.total, data.format)}, `;
  const kind = rings.length > 1 ? `donut with ${rings.length} rings` : "donut";
  return `${titleOf(input)}: ${kind} of ${measuresNamed(data)}, ${total}${said.join("; ")}.${left ? ` ${left}.` : ""}`;
}

/** What the ring does not show, in words. */
function leftOut({ data }: Input, open: OpenStretch | null): string {
  if (open) return openWords(data, open.share);
  const drawn = ({ value, cells }: VisualRow) => (data.series.length ? cells : [value]);
  const negative = data.rows.filter((r) => drawn(r).some((v) => v !== null && v < 0)).length;
  if (negative > 0) return counted(data.words.belowLeftOut, negative);
  // Parts of a rate: the ring closes, but it is not the total.
  const addUp = haveShares(data) && data.series.every((s) => s.addsUp ?? true);
  return !addUp && data.rows.length > 1 ? data.words.notAdditive : "";
}

/**
 * Parts of a whole around a ring, or around several within each other, with the total or the part under the
 * pointer in the middle.
 */
export const donutScene = drawing<Input, Laid>({ lay, draw, handles, say });
