import { categoryColour, textOn } from "../../scene/colour";
import type { Handle, Mark, Scene } from "../../scene/marks";
import { formatNumber, shortFormats } from "../../scene/number-format";
import { fillTemplate } from "../../scene/template";
import { LINE_HEIGHT, SMALLEST, textWidth } from "../../scene/text";
import { arcExtent, polar } from "../angles";
import { type Box, emptyScene, fitText, footNote, frameScene, layFrame, textMark } from "../frame";
import type { SceneInput } from "../kind";
import { layLegend } from "../legend";
import { PERCENT_FORMAT, type VisualRow } from "../visual-data";
import { outsideLabels, outsideRoom } from "./outside-labels";

interface Slice {
  row: VisualRow;
  value: number;
  share: number;
  start: number;
  end: number;
  color: string;
}

const SMALL_SHARE = { ...PERCENT_FORMAT, decimals: 1 };
const sharePercent = (share: number) => formatNumber(share, share < 0.1 ? SMALL_SHARE : PERCENT_FORMAT);

/** Shares of the positive rows around the ring. Rows at or below zero have no place in a whole; the caller says so. */
function slices({ data, style, theme }: SceneInput): Slice[] {
  const parts = data.rows.filter((r): r is VisualRow & { value: number } => r.value !== null && r.value > 0);
  // The largest part scales the others first, so that a sum of huge values cannot overflow.
  const largest = Math.max(...parts.map((r) => r.value));
  const whole = parts.reduce((sum, r) => sum + r.value / largest, 0);
  const sweep = style.number("arc.sweep");
  const sign = style.choice("arc.direction") === "counter" ? -1 : 1;
  const first = style.colour("colours.first", categoryColour(theme, 0));
  let at = style.number("arc.start");
  let before = 0;
  return parts.map((row, i) => {
    const share = row.value / largest / whole;
    before += share;
    const to = style.number("arc.start") + sign * sweep * (i === parts.length - 1 ? 1 : before);
    const color = row.groups > 0 ? theme.other : i === 0 ? first : categoryColour(theme, i);
    const slice = { row, value: row.value, share, start: Math.min(at, to), end: Math.max(at, to), color };
    at = to;
    return slice;
  });
}

function labelLines(slice: Slice, content: string, input: SceneInput): string[] {
  const value = formatNumber(slice.value, input.data.format);
  const texts: Record<string, string[]> = {
    category: [slice.row.label],
    value: [value],
    share: [sharePercent(slice.share)],
    "category share": [slice.row.label, sharePercent(slice.share)],
    "category value": [slice.row.label, value],
  };
  return texts[content] ?? [];
}

/** Whether a text box around the middle of a slice stays within it. */
function boxInSlice(slice: Slice, ring: { inner: number; r: number }, middle: number, width: number, height: number): boolean {
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

/** Labels within the ring, where the segment has room for them. */
function insideLabels(all: Slice[], input: SceneInput, ring: { cx: number; cy: number; inner: number; r: number }): Mark[] {
  const { style } = input;
  const size = style.number("labels.size");
  const marks: Mark[] = [];
  for (const slice of all) {
    const lines = labelLines(slice, style.choice("labels.content"), input);
    if (slice.share * 100 < style.number("labels.least")) continue;
    // Segments that step back while another is under the pointer are too pale to write on.
    if (input.focus !== null && slice.row.key !== input.focus && all.some((s) => s.row.key === input.focus)) continue;
    const middle = (ring.inner + ring.r) / 2;
    const width = Math.max(...lines.map((l) => textWidth(l, size, 600)));
    if (!boxInSlice(slice, ring, middle, width + 4, lines.length * size * LINE_HEIGHT)) continue;
    const at = polar(ring.cx, ring.cy, (slice.start + slice.end) / 2, middle);
    for (const [k, line] of lines.entries())
      marks.push(textMark(`label${k}:${slice.row.key}`, "labels", at.x, at.y + (k - (lines.length - 1) / 2) * size * LINE_HEIGHT, line, size, 600, textOn(slice.color), "middle"));
  }
  return marks;
}

function reading(input: SceneInput, all: Slice[], ring: { cx: number; cy: number; inner: number }): Mark[] {
  const { style, data, theme, focus } = input;
  if (!style.toggle("reading.shown")) return [];
  const focused = all.find((s) => s.row.key === focus);
  const { format } = data;
  const names = focused ? { ...data.names, total: { value: focused.value, format }, value: { value: focused.value, format } } : data.names;
  const value = focused?.value ?? data.total;
  const shorter = shortFormats(format).map((short) => ({ ...names, total: { value, format: short }, value: { value, format: short } }));
  const text = style.template("reading.text");
  const caption = focused ? `${focused.row.label} · ${sharePercent(focused.share)}` : fillTemplate(style.template("reading.caption"), names);
  // A half ring that opens downwards or upwards has its reading within its own half.
  const extent = arcExtent(style.number("arc.start") - (style.choice("arc.direction") === "counter" ? style.number("arc.sweep") : 0), style.number("arc.sweep"));
  const lift = extent.bottom < 0.35 ? -1 : extent.top < 0.35 ? 1 : 0;
  const wanted = Math.min(style.number("reading.size"), ring.inner * (lift === 0 ? 0.6 : 0.42));
  const withCaption = caption !== "" && ring.inner > 34;
  // The hole is narrowest at the line's far edge from the centre.
  const reach = wanted * (lift === 0 ? 0.9 : withCaption ? 1.6 : 1);
  const room = 2 * Math.sqrt(Math.max(0, ring.inner ** 2 - reach ** 2)) * 0.94;
  if (room < 12) return [];
  const main = fitText(
    [names, ...shorter].map((n) => fillTemplate(text, n)),
    room,
    Math.max(SMALLEST, wanted),
    600,
  );
  const middle = ring.cy + lift * main.size * (withCaption ? 0.95 : 0.55);
  const marks: Mark[] = [textMark("reading", "reading", ring.cx, middle - (withCaption ? main.size * 0.22 : 0), main.text, main.size, 600, theme.ink, "middle")];
  if (withCaption) {
    const size = Math.max(SMALLEST, Math.min(13, main.size * 0.42));
    const small = fitText([caption], room * 0.9, size, 400);
    marks.push(textMark("caption", "reading", ring.cx, middle + main.size * 0.62, small.text, small.size, 400, theme.muted, "middle"));
  }
  return marks.filter((m) => m.type === "text" && m.text !== "");
}

function handlesOf(input: SceneInput, ring: { cx: number; cy: number; inner: number; r: number }): Handle[] {
  const { style } = input;
  const [hole, start, sweep] = [style.number("arc.hole"), style.number("arc.start"), style.number("arc.sweep")];
  const sign = style.choice("arc.direction") === "counter" ? -1 : 1;
  const middle = start + (sign * sweep) / 2;
  const { cx, cy, r, inner } = ring;
  return [
    {
      id: "hole",
      sets: "arc.hole",
      label: "Hole",
      value: hole,
      from: 0,
      to: 95,
      step: 1,
      text: `hole ${hole} %`,
      ...polar(cx, cy, middle, inner),
      track: { type: "radial", cx, cy, angle: middle, r0: 0, r1: r * 0.95 },
    },
    {
      id: "start",
      sets: "arc.start",
      label: "Start",
      value: start,
      from: 0,
      to: 360,
      step: 1,
      text: `start ${start}°`,
      ...polar(cx, cy, start, r),
      track: { type: "angular", cx, cy, r, start: 0, end: 360 },
    },
  ];
}

/** Places the ring so that the part of it that is swept fills the body; a partial ring is not given room for the rest. */
function layRing({ style }: SceneInput, body: Box, side: number, margin: number): { cx: number; cy: number; r: number; inner: number } {
  const sweep = style.number("arc.sweep");
  const start = style.number("arc.start") - (style.choice("arc.direction") === "counter" ? sweep : 0);
  const { left, right, top, bottom } = arcExtent(start, sweep);
  const r = Math.max(4, Math.min((body.width - 2 * side) / (left + right), (body.height - 2 * margin) / (top + bottom)));
  return { cx: body.x + body.width / 2 + ((left - right) * r) / 2, cy: body.y + body.height / 2 + ((top - bottom) * r) / 2, r, inner: (r * style.number("arc.hole")) / 100 };
}

function inWords(input: SceneInput, all: Slice[], left: string): string {
  const { data } = input;
  const leading = all
    .toSorted((a, b) => b.share - a.share)
    .slice(0, 3)
    .map((s) => `${s.row.label} ${sharePercent(s.share)}`);
  const title = fillTemplate(data.title, data.names) || data.valueLabel;
  return `${title}: donut of ${data.valueLabel}, total ${formatNumber(data.total, data.format)}, ${all.length} ${all.length === 1 ? "segment" : "segments"}${leading.length ? `; the largest are ${leading.join(", ")}` : ""}.${left ? ` ${left}.` : ""}`;
}

/** A ring of shares, with the total in its centre. */
export function donutScene(input: SceneInput): Scene {
  const { data, style, theme, focus } = input;
  if (data.problem !== null) return emptyScene(input, data.problem);
  if (data.rows.every((r) => r.value === null)) return emptyScene(input, style.template("frame.empty"));
  const { marks, body: whole } = layFrame(input);
  const all = slices(input);
  const negative = data.rows.filter((r) => r.value !== null && r.value < 0).length;
  const sum = data.rows.reduce((total, r) => total + (r.value ?? 0), 0);
  // Parts of a rate, or a tail that was left out: the ring closes, but it is not the total.
  const apart = data.total !== null && Math.abs(sum - data.total) > 0.001 * Math.max(Math.abs(sum), Math.abs(data.total));
  const left =
    negative > 0 ? `${negative} below zero left out: ${negative === 1 ? "it has" : "they have"} no share of a whole` : apart ? "The parts do not add up to the total" : "";
  const noted = footNote(whole, theme, left);
  const legend = layLegend(
    style.choice("legend.place"),
    all.map((s) => ({ key: s.row.key, color: s.color, label: s.row.label, value: style.toggle("legend.values") ? formatNumber(s.value, data.format) : "" })),
    noted.body,
    theme,
  );
  const body: Box = legend.body;
  const content = style.choice("labels.content");
  const size = style.number("labels.size");
  const outside = style.choice("labels.place") === "outside" && content !== "none" && body.width >= 240 && body.height >= 120;
  const labels = outside
    ? all
        .filter((s) => s.share * 100 >= style.number("labels.least"))
        .map((s) => ({ key: s.row.key, lines: labelLines(s, content, input), share: s.share, angle: ((s.start + s.end) / 2 + 720) % 360 }))
    : [];
  const side = outside ? outsideRoom(labels, body, size) : 2;
  const ring = layRing(input, body, side, outside ? 12 : 2);
  const { cx, cy, r, inner } = ring;
  const corner = style.number("arc.corner");
  const alone = all.length === 1 && style.number("arc.sweep") === 360;
  if (all.length === 0) {
    const start = style.number("arc.start");
    marks.push({
      type: "sector",
      id: "track",
      part: "arc",
      cx,
      cy,
      inner,
      outer: r,
      start,
      end: start + style.number("arc.sweep"),
      inset: 0,
      corners: [0, 0, 0, 0],
      fill: theme.track,
    });
  }
  for (const s of all) {
    const grown = s.row.key === focus ? Math.min(4, r * 0.03) : 0;
    marks.push({
      type: "sector",
      id: `slice:${s.row.key}`,
      part: "arc",
      cx,
      cy,
      inner,
      outer: r + grown,
      start: s.start,
      end: s.end,
      inset: alone ? 0 : style.number("arc.gap") / 2,
      corners: [corner, corner, corner, corner],
      fill: s.color,
      opacity: focus === null || s.row.key === focus || !all.some((o) => o.row.key === focus) ? 1 : 0.45,
      datum: {
        key: s.row.key,
        title: s.row.groups > 0 ? `Other (${s.row.groups} together)` : s.row.label,
        lines: [
          { label: data.valueLabel, value: formatNumber(s.value, data.format) },
          { label: "Share", value: sharePercent(s.share) },
        ],
      },
    });
  }
  marks.push(...legend.marks, ...noted.marks);
  if (outside) marks.push(...outsideLabels(labels, ring, { ...body, x: body.x, width: body.width }, size, theme));
  else if (content !== "none" && r > 30) marks.push(...insideLabels(all, input, ring));
  marks.push(...reading(input, all, ring));
  return frameScene(input, marks, handlesOf(input, ring), inWords(input, all, left));
}
