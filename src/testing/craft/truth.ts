import { formatNumber, PERCENT_FORMAT, shortFormats } from "../../core/base/number-format";
import { kindOf } from "../../core/kinds";
import { withFigures } from "../../core/kinds/anatomy/figures";
import { roundAbove, scaleOf } from "../../core/kinds/anatomy/scale";
import { sweepOf } from "../../core/kinds/gauge/face";
import type { Visual } from "../../core/project/schema";
import type { RowKey } from "../../core/rows/row-key";
import type { VisualData, VisualRow } from "../../core/rows/visual-data";
import type { Mark, Rect, Scene, Sector, SeriesKey } from "../../core/scene/marks";
import { styleOf } from "../../core/view/picture";
import { markBox, piecesOf } from "./faults";
import { shapesOf } from "./shown";

const TOLERANCE = 0.005;
const span = (pieces: (Sector | Rect)[]) =>
  pieces.reduce((sum, p) => sum + (p.type === "sector" ? Math.max(0, p.end - p.start) : 0), 0);
/** A stroke that lies within the shape belongs to its length. */
const side = (p: Rect, axis: "width" | "height") => p[axis] + (p.stroke ? (p.strokeWidth ?? 0) : 0);
const extent = (pieces: (Sector | Rect)[], axis: "width" | "height") =>
  pieces.reduce((sum, p) => sum + (p.type === "rect" ? side(p, axis) : 0), 0);

/** Whether a share is drawn as it is, within half a percent of the scale. */
const close = (drawn: number, wanted: number) => Math.abs(drawn - wanted) <= TOLERANCE;

interface Paint {
  dashed: boolean;
  stepped: boolean;
  style: ReturnType<typeof styleOf>;
}

/**
 * The share of its track that an arc covers. Steps of a ramp overlap, so that their whole reach counts;
 * dashes are added up.
 */
function arcShare(scene: Scene, key: RowKey, paint: Paint, sweep: number): number {
  const arc = shapesOf(scene, key);
  if (arc.length === 0) return 0;
  if (paint.dashed) return span(arc) / span(piecesOf(scene, `track:${key}`));
  const sectors = arc.filter((p): p is Sector => p.type === "sector");
  return (Math.max(...sectors.map((s) => s.end)) - Math.min(...sectors.map((s) => s.start))) / sweep;
}

/** What rows run against: the target, the whole of a percent, or an end that all of them fit; null for none. */
function fullOf(data: VisualData): number | null {
  if (data.target && data.target > 0) return data.target;
  if (data.format.style === "percent") return 1;
  return data.rows.length > 1 ? roundAbove(Math.max(0, ...data.rows.map((r) => r.value ?? 0))) : null;
}

/** The share of its own track that a row fills, where rows have targets of their own; null where they have none. */
function ownShare(data: VisualData, row: VisualRow, past: string, against: string): number | null {
  if (data.own.target === null) return null;
  const [value, target] = [row.value ?? 0, row.target ?? 0];
  if (!(target > 0)) return 0;
  const all = data.rows.flatMap((r) => [r.value ?? 0, r.target ?? 0]);
  if (against === "one") return Math.max(0, value / roundAbove(Math.max(0, ...all)));
  const shares = data.rows.filter((r) => (r.target ?? 0) > 0).map((r) => (r.value ?? 0) / (r.target ?? 1));
  return Math.min(1, Math.max(0, value / target / (past === "extend" ? Math.max(1, ...shares) : 1)));
}

function ringLies(data: VisualData, scene: Scene, paint: Paint, part: string): string[] {
  const largest = Math.max(0, ...data.rows.map((r) => r.value ?? 0));
  const full = fullOf(data) ?? Number.POSITIVE_INFINITY;
  const past = paint.style.choice(`${part}.past`);
  const end = past === "extend" && largest > full ? largest : full;
  const sweep = paint.style.number(`${part}.sweep`);
  return data.rows.flatMap((row) => {
    if (!scene.marks.some((m) => m.id === `track:${row.key}` || m.id.startsWith(`track:${row.key}/`)))
      return [];
    const wanted =
      ownShare(data, row, past, paint.style.choice(`${part}.against`)) ??
      Math.min(1, Math.max(0, (row.value ?? 0) / end));
    const drawn = arcShare(scene, row.key, paint, sweep);
    return close(drawn, wanted)
      ? []
      : [`arc of ${row.label} covers ${drawn.toFixed(4)} for ${wanted.toFixed(4)}`];
  });
}

function donutLies(data: VisualData, scene: Scene, paint: Paint): string[] {
  const sweep = paint.style.number("arc.sweep");
  const rings = data.series.length
    ? data.series.map((s, k) => ({
        series: s.key,
        total: s.total,
        readOf: (r: VisualRow) => r.cells[k] ?? null,
      }))
    : [{ series: undefined, total: data.total, readOf: (r: VisualRow) => r.value }];
  return rings.flatMap(({ series, total, readOf }) => {
    const parts = data.rows.map((row) => ({ row, value: readOf(row) ?? 0 })).filter((p) => p.value > 0);
    if (parts.length === 0) return [];
    const sum = parts.reduce((s, p) => s + p.value, 0);
    // Of rows that are cut off, a slice is the share of all that there is.
    const whole = data.isCut && data.addsUp ? Math.max(sum, total ?? 0) : sum;
    const spans = parts.map(({ row }) => span(shapesOf(scene, row.key, series)));
    const covered = spans.reduce((s, x) => s + x, 0);
    const all = paint.dashed ? (covered * whole) / sum : sweep;
    const found = parts.flatMap(({ row, value }, i) =>
      close(spans[i] / all, value / whole)
        ? []
        : [`slice of ${row.label} covers ${(spans[i] / all).toFixed(4)} for ${(value / whole).toFixed(4)}`],
    );
    if (!paint.dashed && !close(covered / sweep, sum / whole))
      found.push(`the slices fill ${(covered / sweep).toFixed(4)} of the ring`);
    return found;
  });
}

/**
 * Lengths that should all be in one proportion to their values: the greatest difference, as a share of the
 * longest, is what counts.
 */
function proportionLies(lengths: { name: string; value: number; length: number }[]): string[] {
  const most = lengths.reduce((a, b) => (Math.abs(b.value) > Math.abs(a.value) ? b : a), {
    name: "",
    value: 0,
    length: 0,
  });
  if (most.value === 0) return lengths.some((l) => l.length > 1) ? ["a bar stands for zero"] : [];
  const unit = most.length / Math.abs(most.value);
  return lengths.flatMap(({ name, value, length }) =>
    Math.abs(length - Math.abs(value) * unit) <= TOLERANCE * most.length + 0.01
      ? []
      : [`${name} is ${length.toFixed(2)} long for ${(Math.abs(value) * unit).toFixed(2)}`],
  );
}

function barLies(visual: Visual, data: VisualData, scene: Scene, paint: Paint): string[] {
  const axis = paint.style.choice("bar.direction") === "right" ? "width" : "height";
  const shown = data.rows.filter((r) => shapesOf(scene, r.key).length > 0 || r.value === 0);
  const length = (row: RowKey, series?: SeriesKey) => extent(shapesOf(scene, row, series), axis);
  if (visual.kind === "nested bars") {
    if (paint.style.choice("scale.of") === "two") return [];
    const isValueOuter = data.second === null || paint.style.choice("bar.holds") === "value";
    return proportionLies(
      shown.flatMap((r) => [
        {
          name: `outer ${r.label}`,
          value: (isValueOuter ? r.value : r.second) ?? 0,
          length: length(r.key, "outer"),
        },
        {
          name: `inner ${r.label}`,
          value: (isValueOuter ? r.second : r.value) ?? 0,
          length: length(r.key, "inner"),
        },
      ]),
    );
  }
  if (data.series.length === 0)
    return proportionLies(shown.map((r) => ({ name: r.label, value: r.value ?? 0, length: length(r.key) })));
  return proportionLies(
    shown.flatMap((r) =>
      data.series.map((s, k) => ({
        name: `${r.label} ${s.label}`,
        value: r.cells[k] ?? 0,
        length: length(r.key, s.key),
      })),
    ),
  );
}

/**
 * A stack closes: from its first segment to its last it is as long as the sum of its values, gaps included.
 */
function stackLies(data: VisualData, scene: Scene, paint: Paint): string[] {
  const vertical = paint.style.choice("bar.direction") === "up";
  const shares = paint.style.choice("bar.as") === "shares";
  return proportionLies(
    data.rows.flatMap((row) => {
      const cells = data.series.length ? row.cells : [row.value];
      const pieces = shapesOf(scene, row.key).filter((p): p is Rect => p.type === "rect");
      // Between dashed segments the gaps take of the dashes.
      if (pieces.length === 0 || (paint.dashed && data.series.length > 0)) return [];
      const half = (p: Rect) => (p.stroke ? (p.strokeWidth ?? 0) / 2 : 0);
      const low = Math.min(...pieces.map((p) => (vertical ? p.y : p.x) - half(p)));
      const high = Math.max(...pieces.map((p) => (vertical ? p.y + p.height : p.x + p.width) + half(p)));
      const whole = cells.reduce<number>((sum, v) => sum + Math.abs(v ?? 0), 0);
      return [
        {
          name: `stack of ${row.label}`,
          value: shares && whole > 0 ? 1 : whole,
          length: paint.dashed ? extent(pieces, vertical ? "height" : "width") : high - low,
        },
      ];
    }),
  );
}

function progressBarLies(data: VisualData, scene: Scene, paint: Paint): string[] {
  const axis = paint.style.choice("bar.direction") === "right" ? "width" : "height";
  const largest = Math.max(0, ...data.rows.map((r) => r.value ?? 0));
  const full = fullOf(data) ?? Number.POSITIVE_INFINITY;
  const end = paint.style.choice("bar.past") === "extend" && largest > full ? largest : full;
  return data.rows.flatMap((row) => {
    const track = extent(piecesOf(scene, `track:${row.key}`), axis);
    if (track === 0) return [];
    const drawn = extent(shapesOf(scene, row.key), axis) / track;
    const wanted =
      ownShare(data, row, paint.style.choice("bar.past"), paint.style.choice("bar.against")) ??
      Math.min(1, Math.max(0, (row.value ?? 0) / end));
    return close(drawn, wanted)
      ? []
      : [`bar of ${row.label} covers ${drawn.toFixed(4)} for ${wanted.toFixed(4)}`];
  });
}

function lollipopLies(data: VisualData, scene: Scene, paint: Paint): string[] {
  const right = paint.style.choice("stem.direction") === "right";
  const base = scene.marks.find((m) => m.id === "baseline");
  if (base?.type !== "line") return [];
  const zero = right ? base.points[0][0] : base.points[0][1];
  // Lengths are read from the line on which the stems stand.
  const from = paint.style.choice("domain.start") === "zero" ? (data.baseline ?? 0) : 0;
  const found = data.rows.flatMap((row) => {
    const head = scene.marks.find((m) => m.shows?.row === row.key);
    if (head?.type !== "circle") return [];
    return [
      {
        name: `head of ${row.label}`,
        value: (row.value ?? 0) - from,
        length: Math.abs((right ? head.cx : head.cy) - zero),
      },
    ];
  });
  return proportionLies(found);
}

function roseLies(data: VisualData, scene: Scene, paint: Paint): string[] {
  const area = paint.style.choice("petal.by") === "area";
  return proportionLies(
    data.rows.flatMap((row) => {
      const [petal] = shapesOf(scene, row.key).filter((p): p is Sector => p.type === "sector");
      if (!petal) return [];
      const half = petal.stroke ? (petal.strokeWidth ?? 0) / 2 : 0;
      const [inner, outer] = [petal.inner - (petal.inner > 0 ? half : 0), petal.outer + half];
      return [
        {
          name: `petal of ${row.label}`,
          value: row.value ?? 0,
          length: area ? outer ** 2 - inner ** 2 : outer - inner,
        },
      ];
    }),
  );
}

/** The part of a cell that is drawn: all of it, or what its cut leaves. */
function cellPart(m: Mark): number {
  if (!m.clip) return 1;
  const box = markBox(m);
  const stroke = m.stroke && m.type !== "polygon" ? (m.strokeWidth ?? 0) : 0;
  return (m.clip.width * m.clip.height) / ((box.right - box.left + stroke) * (box.bottom - box.top + stroke));
}

function waffleLies(data: VisualData, scene: Scene, paint: Paint): string[] {
  const cells = scene.marks.filter((m) => m.shows?.channel === "count");
  const total = paint.style.number("cell.rows") * paint.style.number("cell.columns");
  const covered = cells.reduce((sum, m) => sum + cellPart(m), 0) / total;
  const grids = paint.style.choice("cell.grids");
  const isApart = !data.addsUp || data.own.target !== null;
  if (data.splitLabel !== null && (grids === "each" || (grids === "auto" && isApart))) {
    // Every part has a grid of its own, which its share of the goal, or of an end that all share, fills.
    const drawn = data.rows.filter((r) => scene.marks.some((m) => m.id.includes(r.key)));
    const end = fullOf(data) ?? roundAbove(Math.max(0, ...data.rows.map((r) => r.value ?? 0)));
    const found = drawn.flatMap((row) => {
      const own =
        cells.filter((m) => m.shows?.row === row.key).reduce((sum, m) => sum + cellPart(m), 0) / total;
      const of = data.own.target === null ? end : (row.target ?? 0);
      const ofOne = of > 0 ? (row.value ?? 0) / of : 0;
      const most = paint.style.choice("cell.past") === "extend" ? Math.max(1, ofOne) : 1;
      const share = Math.min(1, Math.max(0, data.own.target === null ? ofOne : ofOne / most));
      const wanted = paint.style.toggle("cell.part") ? share : Math.round(share * total) / total;
      const isExtended = paint.style.choice("cell.past") === "extend" && of > 0 && (row.value ?? 0) > of;
      return close(own, isExtended ? 1 : wanted) ? [] : [`${row.label} fills ${own.toFixed(3)} of its grid`];
    });
    return drawn.length > 0 ? found : ["no part has a grid"];
  }
  if (data.splitLabel !== null) {
    const sum = data.rows.reduce((s, r) => s + Math.max(0, r.value ?? 0), 0);
    const whole = data.isCut && data.addsUp ? Math.max(sum, data.total ?? 0) : sum;
    // Cells that are not given to a part are whole ones.
    const off = Math.abs(covered - (sum > 0 ? sum / whole : 0));
    return off < (sum < whole ? 1 / total : TOLERANCE)
      ? []
      : [`the cells add up to ${covered.toFixed(3)} of the grid`];
  }
  const value = data.rows[0]?.value ?? 0;
  const full = fullOf(data) ?? Number.POSITIVE_INFINITY;
  const past = paint.style.choice("cell.past");
  const share = Math.min(1, Math.max(0, value / full));
  // Where cells are not cut, the nearest whole one is meant.
  const wanted = paint.style.toggle("cell.part") ? share : Math.round(share * total) / total;
  return close(covered, past === "extend" && value > full ? 1 : wanted)
    ? []
    : [`cells cover ${covered.toFixed(4)} for ${wanted.toFixed(4)}`];
}

function gaugeLies(data: VisualData, scene: Scene, paint: Paint): string[] {
  const value = data.total;
  if (value === null) return [];
  const past = paint.style.choice("arc.past") as "hold" | "lap" | "extend";
  const scale = scaleOf({
    minimum: data.minimum,
    maximum: data.maximum,
    target: data.target,
    value,
    edges: paint.style.choice("zones.edges") === "share" ? [] : data.zones.flatMap((z) => z.to ?? []),
    format: data.format,
    past,
  });
  const wanted = Math.min(1, Math.max(0, (value - scale.minimum) / (scale.maximum - scale.minimum)));
  const needle = scene.marks.find((m) => m.shows?.channel === "position");
  if (needle?.type !== "polygon") return [];
  const { start, sweep } = sweepOf(paint.style as unknown as Parameters<typeof sweepOf>[0]);
  const drawn = (needle.rotate - start) / sweep;
  return close(drawn, wanted) ? [] : [`the needle stands at ${drawn.toFixed(4)} for ${wanted.toFixed(4)}`];
}

/** Bars of a course stand on zero. */
function courseLies(data: VisualData, scene: Scene): string[] {
  const bars = data.rows.flatMap((row) => {
    const pieces = shapesOf(scene, row.key);
    const length = extent(pieces, "height");
    // A bar is never thinner than a hair, so that its day is not taken for a missing one.
    return pieces.length && length > 0.76
      ? [{ name: `bar of ${row.label}`, value: row.value ?? 0, length }]
      : [];
  });
  return bars.length ? proportionLies(bars) : [];
}

/** The reading says the value as it is formatted, in full or in a shorter unit, and never a part of it. */
function readingLies(visual: Visual, data: VisualData, scene: Scene): string[] {
  const reading = scene.marks.find((m) => m.id === "reading");
  // A text of one's own says what its author wrote.
  if (reading?.type !== "text" || data.total === null || "reading.text" in visual.dials) return [];
  const measured = data.rows.length > 1 && data.rows.every((r) => r.format);
  const parts = data.rows.reduce((sum, r) => sum + Math.max(0, r.value ?? 0), 0);
  const values = [data.total, ...(measured ? [parts, ...data.rows.map((r) => r.value ?? 0)] : [])];
  const full = data.target && data.target > 0 ? data.target : data.format.style === "percent" ? 1 : null;
  const shares = values
    .flatMap((v) => (full === null ? [] : v / full))
    .flatMap((s) =>
      [0, 1, ...(data.format.style === "percent" ? [data.format.decimals] : [])].map((decimals) =>
        formatNumber(s, { ...PERCENT_FORMAT, decimals }),
      ),
    );
  const said = new Set([
    ...values.flatMap((v) => [data.format, ...shortFormats(data.format)].map((f) => formatNumber(v, f))),
    ...shares,
  ]);
  return said.has(reading.text) ? [] : [`${visual.kind}'s reading says “${reading.text}”`];
}

/** Where a scene's geometry or its reading says something else than the data. */
export function lies(visual: Visual, given: VisualData, scene: Scene): string[] {
  const data = withFigures(given, styleOf(visual), Math.max(visual.size.width, visual.size.height));
  if (data.problem !== null || scene.marks.some((m) => m.id.startsWith("empty") && m.type === "text"))
    return [];
  const style = styleOf(visual);
  const paint: Paint = {
    style,
    dashed: style.has("surface.dashes") && style.number("surface.dashes") > 0,
    stepped: style.choice("surface.shade") === "ramp",
  };
  const geometry = (): string[] => {
    switch (kindOf(visual.kind).id) {
      case "donut":
        return donutLies(data, scene, paint);
      case "progress ring":
      case "radial bars":
        return ringLies(data, scene, paint, "ring");
      case "gauge":
        return gaugeLies(data, scene, paint);
      case "progress bar":
        return progressBarLies(data, scene, paint);
      case "lollipop":
        return lollipopLies(data, scene, paint);
      case "rounded bars":
      case "nested bars":
        return barLies(visual, data, scene, paint);
      case "capsule stack":
        return stackLies(data, scene, paint);
      case "rose":
        return roseLies(data, scene, paint);
      case "waffle":
        return waffleLies(data, scene, paint);
      case "number":
        return courseLies(data, scene);
    }
  };
  return [...geometry(), ...readingLies(visual, data, scene)];
}
