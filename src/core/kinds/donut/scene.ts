import type { NumberFormat } from "../../base/number-format";
import { formatNumber } from "../../base/number-format";
import { fillTemplate } from "../../base/template";
import type { RowKey } from "../../rows/row-key";
import type { VisualRow } from "../../rows/visual-data";
import type { Box } from "../../scene/box";
import type { Handle, Mark, Scene } from "../../scene/marks";
import { LINE_HEIGHT, textWidth, wrap } from "../../scene/text";
import { arcExtent, polar } from "../anatomy/angles";
import { Colours } from "../anatomy/colours";
import { rowDatum, strength } from "../anatomy/datum";
import { blankScene, footNote, frameScene, layFrame, titleOf } from "../anatomy/frame";
import type { SceneInput } from "../anatomy/kind";
import { labelWriter, shareText } from "../anatomy/labels";
import { layLegend } from "../anatomy/legend";
import { type Centre, layCentre, startPlace } from "../anatomy/rings";
import { textMark } from "../anatomy/text-mark";
import { namesFor, roundReading } from "../anatomy/visual-reading";
import { outsideLabels, outsideRoom } from "./outside-labels";
import type { DonutPart } from "./parts";

type Input = SceneInput<DonutPart>;

interface Slice {
  row: VisualRow;
  value: number;
  share: number;
  start: number;
  end: number;
  color: string;
}

/** One of the concentric rings: what it stands for, its slices, and its radii. */
interface Ring extends Centre {
  /** The series, or null where the ring is the only one. */
  key: RowKey | null;
  label: string;
  /** The format of the measure that the ring stands for; the value's where it is a series. */
  format?: NumberFormat;
  all: Slice[];
  inner: number;
}

/**
 * Shares of the positive values around a ring. Values at or below zero have no place in a whole; the caller
 * says so.
 */
function slices(
  { data, style }: Input,
  colours: Colours,
  readOf: (row: VisualRow) => number | null,
): Slice[] {
  const parts = data.rows
    .map((row, index) => ({ row, index, value: readOf(row) }))
    .filter((p): p is { row: VisualRow; index: number; value: number } => p.value !== null && p.value > 0);
  // The largest part scales the others first, so that a sum of huge values cannot overflow.
  const largest = Math.max(...parts.map((p) => p.value));
  const whole = parts.reduce((sum, p) => sum + p.value / largest, 0);
  const sweep = style.number("arc.sweep");
  const sign = style.choice("arc.direction") === "counter" ? -1 : 1;
  let at = style.number("arc.start");
  let before = 0;
  return parts.map(({ row, index, value }, i) => {
    const share = value / largest / whole;
    before += share;
    const to = style.number("arc.start") + sign * sweep * (i === parts.length - 1 ? 1 : before);
    const slice = {
      row,
      value,
      share,
      start: Math.min(at, to),
      end: Math.max(at, to),
      color: colours.of(row, index),
    };
    at = to;
    return slice;
  });
}

/** The rings from the outside in: one for each of the series, or one for the value. */
function ringsOf(input: Input, colours: Colours, centre: Centre): Ring[] {
  const { data, style } = input;
  const { r } = centre;
  const hole = (r * style.number("arc.hole")) / 100;
  const wanted = data.series.length
    ? data.series.map((s, k) => ({
        key: s.key,
        label: s.label,
        format: s.format,
        all: slices(input, colours, (row) => row.cells[k] ?? null),
      }))
    : [{ key: null, label: "", format: undefined, all: slices(input, colours, (row) => row.value) }];
  const gap = Math.min(style.number("arc.ringGap"), (r - hole) / (wanted.length * 1.6));
  const each = (r - hole - gap * (wanted.length - 1)) / wanted.length;
  return wanted.map((ring, k) => ({
    ...ring,
    ...centre,
    r: r - k * (each + gap),
    inner: Math.max(0, r - k * (each + gap) - each),
  }));
}

/** Whether a text box around the middle of a slice stays within it. */
function boxInSlice(
  slice: Slice,
  ring: Pick<Ring, "inner" | "r">,
  middle: number,
  width: number,
  height: number,
): boolean {
  const centre = polar(0, 0, (slice.start + slice.end) / 2, middle);
  const half = (slice.end - slice.start) / 2;
  return [
    [-1, -1],
    [1, -1],
    [-1, 1],
    [1, 1],
    [0, -1],
    [0, 1],
    [-1, 0],
    [1, 0],
  ].every(([dx, dy]) => {
    const [x, y] = [centre.x + (dx * width) / 2, centre.y + (dy * height) / 2];
    const distance = Math.hypot(x, y);
    const turn = (Math.atan2(x, -y) * 180) / Math.PI - (slice.start + slice.end) / 2;
    const off = Math.abs(((((turn + 180) % 360) + 360) % 360) - 180);
    return distance > ring.inner && distance < ring.r && off < half;
  });
}

type Write = (slice: Slice, format?: NumberFormat) => string[][];

/** Labels within a ring, where the segment has room for one of their wordings. */
function insideLabels(input: Input, ring: Ring, write: Write): Mark[] {
  const { style, surface } = input;
  const size = style.number("labels.size");
  const marks: Mark[] = [];
  if (!surface.carriesText) return marks;
  for (const slice of ring.all) {
    if (slice.share * 100 < style.number("labels.least")) continue;
    // Segments that step back while another is under the pointer are too pale to write on.
    if (strength(input, slice.row.key) < 1) continue;
    const middle = ring.inner === 0 ? ring.r * 0.64 : (ring.inner + ring.r) / 2;
    const lines = write(slice, ring.format).find((wording) =>
      boxInSlice(
        slice,
        ring,
        middle,
        Math.max(...wording.map((l) => textWidth(l, size, 600))) + 4,
        wording.length * size * LINE_HEIGHT,
      ),
    );
    if (!lines) continue;
    const at = polar(ring.cx, ring.cy, (slice.start + slice.end) / 2, middle);
    for (const [k, line] of lines.entries())
      marks.push(
        textMark(`label${k}:${ring.key}:${slice.row.key}`, "labels", {
          x: at.x,
          y: at.y + (k - (lines.length - 1) / 2) * size * LINE_HEIGHT,
          text: line,
          size,
          weight: 600,
          fill: surface.inkOn(slice.color),
          align: "middle",
        }),
      );
  }
  return marks;
}

function reading(input: Input, ring: Ring, within: Box): Mark[] {
  const { style, data, focus } = input;
  const focused = ring.all.find((s) => s.row.key === focus);
  const format = focused?.row.format ?? data.format;
  const measured = data.rows.every((r) => r.format) && data.rows.length > 1;
  const value = focused?.value ?? (measured ? ring.all.reduce((sum, s) => sum + s.value, 0) : data.total);
  const names = namesFor(input, { total: { value, format }, value: { value, format } });
  const caption = focused
    ? `${focused.row.label} · ${shareText(focused.share)}`
    : fillTemplate(style.template("reading.caption"), names[0]);
  // A half ring that opens downwards or upwards has its reading within its own half.
  const extent = arcExtent(
    style.number("arc.start") - (style.choice("arc.direction") === "counter" ? style.number("arc.sweep") : 0),
    style.number("arc.sweep"),
  );
  const lift = extent.bottom < 0.35 ? -1 : extent.top < 0.35 ? 1 : 0;
  return roundReading(input, { x: ring.cx, y: ring.cy, room: ring.inner, within }, names, caption, lift);
}

function handlesOf(input: Input, ring: { cx: number; cy: number; inner: number; r: number }): Handle[] {
  const { style } = input;
  const [start, sweep] = [style.number("arc.start"), style.number("arc.sweep")];
  const sign = style.choice("arc.direction") === "counter" ? -1 : 1;
  const angle = start + (sign * sweep) / 2;
  const { cx, cy, r, inner } = ring;
  return [
    style.handle("arc.hole", {
      ...polar(cx, cy, angle, inner),
      track: (from, to) => ({ type: "radial", cx, cy, angle, r0: (r * from) / 100, r1: (r * to) / 100 }),
    }),
    style.handle("arc.start", startPlace(start, { cx, cy, r })),
  ];
}

function inWords(input: Input, rings: Ring[], left: string): string {
  const { data } = input;
  const said = rings.map(({ label, all }) => {
    const leading = all
      .toSorted((a, b) => b.share - a.share)
      .slice(0, 3)
      .map((s) => `${s.row.label} ${shareText(s.share)}`);
    return `${label ? `${label}: ` : ""}${all.length} ${all.length === 1 ? "segment" : "segments"}${leading.length ? `, the largest ${leading.join(", ")}` : ""}`;
  });
  const kind = rings.length > 1 ? `donut with ${rings.length} rings` : "donut";
  return `${titleOf(input)}: ${kind} of ${data.valueLabel}, total ${formatNumber(data.total, data.format)}, ${said.join("; ")}.${left ? ` ${left}.` : ""}`;
}

/** What the ring does not show, in words. */
function leftOut({ data }: Input): string {
  const negative = data.rows.filter((r) => r.value !== null && r.value < 0).length;
  if (negative > 0)
    return `${negative} below zero left out: ${negative === 1 ? "it has" : "they have"} no share of a whole`;
  // Parts of a rate, or a tail that was left out: the ring closes, but it is not the total.
  const sum = data.rows.reduce((total, r) => total + (r.value ?? 0), 0);
  const measured = data.rows.length > 1 && data.rows.every((r) => r.format);
  const apart =
    !measured &&
    data.total !== null &&
    Math.abs(sum - data.total) > 0.001 * Math.max(Math.abs(sum), Math.abs(data.total));
  return apart ? "The parts do not add up to the total" : "";
}

/**
 * Parts of a whole around a ring, or around several within each other, with the total or the part under the
 * pointer in the middle.
 */
export function donutScene(input: Input): Scene {
  const blank = blankScene(input);
  if (blank) return blank;
  const { data, style, theme, focus } = input;
  const { marks, body: whole } = layFrame(input);
  const colours = new Colours(input);
  const left = leftOut(input);
  const order =
    data.series.length > 1 ? `From the outside in: ${data.series.map((s) => s.label).join(", ")}` : "";
  const noted = footNote(whole, theme, [order, left].filter(Boolean).join(". "));
  const first = slices(input, colours, (row) => row.value);
  const entries = colours.ruleLegend().length
    ? colours.ruleLegend()
    : first.map((s) => ({
        key: s.row.key,
        color: s.color,
        label: s.row.label,
        value: style.toggle("legend.values") ? formatNumber(s.value, s.row.format ?? data.format) : "",
      }));
  const content = style.choice("labels.content");
  // Names beside the ring say what a legend would.
  const named =
    style.choice("labels.place") === "outside" &&
    content.includes("category") &&
    whole.width >= 240 &&
    whole.height >= 120;
  const place = style.choice("legend.place") === "auto" && named ? "none" : style.choice("legend.place");
  const legend = layLegend(place, entries, noted.body, theme);
  const body: Box = legend.body;
  const writer = labelWriter(input, input.style.choice("labels.content"));
  const write: Write = (s, format = s.row.format) =>
    writer({ ...s.row, value: s.value, format }, s.value / s.share);
  const size = style.number("labels.size");
  const outside =
    style.choice("labels.place") === "outside" &&
    content !== "none" &&
    body.width >= 240 &&
    body.height >= 120 &&
    data.series.length <= 1;
  const labels = outside
    ? first
        .filter((s) => s.share * 100 >= style.number("labels.least"))
        .flatMap((s) =>
          write(s)
            .slice(0, 1)
            .map(([first, ...rest]) => {
              const names = wrap(first, body.width * 0.24, size, 500, 2);
              return {
                key: s.row.key,
                lines: [...names, ...rest],
                names: names.length,
                share: s.share,
                angle: ((s.start + s.end) / 2 + 720) % 360,
              };
            }),
        )
    : [];
  const sweep = style.number("arc.sweep");
  const start = style.number("arc.start");
  const from = start - (style.choice("arc.direction") === "counter" ? sweep : 0);
  // The segment under the pointer grows by at most four pixels, which stay free around the ring.
  const centre = layCentre(
    body,
    from,
    sweep,
    outside ? outsideRoom(labels, body, size) : 4,
    outside ? 12 : 4,
  );
  const rings = ringsOf(input, colours, centre);
  const { cx, cy } = centre;
  const corner = style.number("arc.corner");
  const border = style.number("arc.border");
  for (const ring of rings) {
    const id = ring.key ? `${ring.key}:` : "";
    if (ring.all.length === 0)
      marks.push({
        type: "sector",
        id: `track:${id}`,
        part: "arc",
        cx,
        cy,
        inner: ring.inner,
        outer: ring.r,
        start: from,
        end: from + sweep,
        inset: 0,
        corners: [0, 0, 0, 0],
        fill: theme.track,
        surface: "track",
      });
    const alone = ring.all.length === 1 && sweep === 360;
    for (const s of ring.all) {
      const grown = s.row.key === focus && rings.length === 1 ? Math.min(4, centre.r * 0.03) : 0;
      marks.push({
        type: "sector",
        id: `slice:${id}${s.row.key}`,
        part: "arc",
        cx,
        cy,
        inner: ring.inner,
        outer: ring.r + grown,
        start: s.start,
        end: s.end,
        inset: alone ? 0 : style.number("arc.gap") / 2,
        corners: [corner, corner, corner, corner],
        fill: s.color,
        ...(border > 0 ? { stroke: theme.ink, strokeWidth: border } : {}),
        opacity: strength(input, s.row.key),
        shows: {
          row: s.row.key,
          ...(ring.key ? { series: ring.key } : {}),
          value: s.value,
          channel: "angle",
        },
        surface: "data",
        grow: "middle",
        whole: { from, to: from + sweep, axis: "angle" },
        datum: rowDatum(
          input,
          { ...s.row, value: s.value },
          [
            ...(ring.label && !ring.format ? [{ label: "Of", value: ring.label }] : []),
            { label: "Share", value: shareText(s.share) },
          ],
          ring.format && { label: ring.label, format: ring.format },
        ),
      });
    }
  }
  marks.push(...legend.marks, ...noted.marks);
  const outer = rings[0];
  if (outside)
    marks.push(
      ...outsideLabels(labels, { cx, cy, r: outer.r }, body, size, theme, style.toggle("labels.leaders")),
    );
  else if (content !== "none" && centre.r > 30)
    for (const ring of rings) marks.push(...insideLabels(input, ring, write));
  // The reading is the row's own value, whichever ring the pointer stands on.
  marks.push(...reading(input, { ...rings[rings.length - 1], all: first }, body));
  return frameScene(
    input,
    marks,
    handlesOf(input, { ...centre, inner: rings[rings.length - 1].inner }),
    inWords(input, rings, left),
  );
}
