import { kindOf } from "../../core/kinds";
import { Colours } from "../../core/kinds/anatomy/colours";
import type { Visual } from "../../core/project/schema";
import type { RowKey } from "../../core/rows/row-key";
import type { VisualData, VisualRow } from "../../core/rows/visual-data";
import { mix } from "../../core/scene/colour";
import type { Fill, Rect, Scene, Sector, SeriesKey } from "../../core/scene/marks";
import { type PictureOptions, sceneInput, styleOf } from "../../core/view/picture";

/**
 * The sectors and boxes that show a row, or one series of it: the pieces that a finish cut them into,
 * or they themselves.
 */
export function shapesOf(scene: Scene, row: RowKey, series?: SeriesKey): (Sector | Rect)[] {
  return scene.marks.filter(
    (m): m is Sector | Rect =>
      (m.type === "sector" || m.type === "rect") &&
      m.shows?.row === row &&
      (series === undefined || m.shows.series === series),
  );
}

/** The value that a mark of a row must stand for. */
function valueFor(
  visual: Visual,
  data: VisualData,
  row: VisualRow,
  series: string | undefined,
): number | null {
  if (series === undefined) return row.value;
  if (series === "inner" || series === "outer") {
    // The inner bar holds the value, unless the outer one was told to, or there is no second value.
    const isValueOuter = data.second === null || styleOf(visual).value("bar.holds") === "value";
    return (series === "outer") === isValueOuter ? row.value : row.second;
  }
  const at = data.series.findIndex((s) => s.key === series);
  return at < 0 ? null : (row.cells[at] ?? null);
}

/**
 * Whether a picture says that it leaves something out: by a text on it, or, where that has no room,
 * in its description.
 */
const saysSo = (scene: Scene) =>
  /\bnot shown\b/.test(scene.description) ||
  scene.marks.some((m) => m.type === "text" && /\b(more|left out|fit)\b/.test(m.text));

/** Whether a row is one that its kind draws a mark for: parts of a whole and progress begin above zero. */
function wantsMark(visual: Visual, data: VisualData, row: VisualRow): boolean {
  const { downwards } = kindOf(visual.kind);
  const most = Math.max(...data.rows.map((r) => Math.abs(r.value ?? 0)));
  // What is a billionth of the largest is no wider than nothing.
  if (row.value === null || Math.abs(row.value) <= most * 1e-9) return false;
  return row.value > 0 || downwards === true;
}

/**
 * Rows without a mark, and marks of no row or of another value: what a picture lacks or makes up, told by the
 * row's label.
 */
export function unshown(visual: Visual, data: VisualData, scene: Scene): string[] {
  const marks = scene.marks.filter((m) => m.shows);
  const rows = new Map(data.rows.map((r) => [r.key, r]));
  const found: string[] = [];
  for (const { shows } of marks) {
    if (!shows) continue;
    const row = rows.get(shows.row);
    if (!row) found.push(`a mark shows “${shows.row}”, which is no row`);
    else if (valueFor(visual, data, row, shows.series) !== shows.value)
      found.push(
        `the mark of ${row.label} stands for ${shows.value}, not ${valueFor(visual, data, row, shows.series)}`,
      );
  }
  const kind = kindOf(visual.kind);
  if (kind.unmarked?.(visual.dials)) return found;
  // A single value without a goal is a number, and asks for one.
  if (kind.roles.includes("target") && /no target yet|target is not above zero/.test(scene.description))
    return found;
  // A course in time that has no room is left out whole.
  if (kind.course && marks.length === 0) return found;
  const missing = data.rows.filter(
    (r) => wantsMark(visual, data, r) && !marks.some((m) => m.shows?.row === r.key),
  );
  if (missing.length > 0 && !saysSo(scene)) found.push(...missing.map((r) => `${r.label} has no mark`));
  return [...new Set(found)];
}

const coloursIn = (fill: Fill | undefined): string[] =>
  fill === undefined ? [] : typeof fill === "string" ? [fill] : fill.stops.map((s) => s.color);

const known = new Map<string, [number, number, number]>();
function channels(hex: string): [number, number, number] {
  let found = known.get(hex);
  if (!found) {
    found = [1, 3, 5].map((at) => Number.parseInt(hex.slice(at, at + 2), 16)) as [number, number, number];
    known.set(hex, found);
  }
  return found;
}
/** How far two colours lie from each other in red, green and blue. */
function distance(a: string, b: string): number {
  const [x, y] = [channels(a), channels(b)];
  return Math.hypot(x[0] - y[0], x[1] - y[1], x[2] - y[2]);
}

/** Rows whose mark has another colour than its category, series or rule has, told by the row's label. */
export function miscoloured(
  visual: Visual,
  data: VisualData,
  scene: Scene,
  options: PictureOptions,
): string[] {
  if (kindOf(visual.kind).ownColours) return [];
  const input = sceneInput(visual, data, undefined, options);
  const style = styleOf(visual);
  // Neighbours on a ramp lie closer than a shaded shape reaches, and a border takes most of a thin one.
  const isShaded = !["flat", "outline"].includes(style.choice("surface.shade"));
  const isDashed = style.has("surface.dashes") && style.number("surface.dashes") > 0;
  if (isShaded && (style.value("colours.by") === "ramp" || isDashed)) return [];
  // A ramp between colours of one's own is the same for all of them.
  const isOwnRamp =
    style.value("surface.shade") === "ramp" && (style.value("surface.from") || style.value("surface.middle"));
  if (isOwnRamp) return [];
  const weak = 1 - Number(style.value("surface.strength")) / 100;
  const colours = new Colours(input as unknown as ConstructorParameters<typeof Colours>[0]);
  const wanted = (row: VisualRow, series: string | undefined): string | null => {
    if (series === "outer") return null;
    const at = data.series.findIndex((s) => s.key === series);
    return at >= 0 && visual.kind !== "donut" ? colours.series(at) : colours.of(row, data.rows.indexOf(row));
  };
  // A finish shades its colours; what a row shows must still be nearest to its own.
  const seen = new Map<string, { row: VisualRow; color: string; colours: Set<string> }>();
  for (const mark of scene.marks) {
    const row = mark.shows && data.rows.find((r) => r.key === mark.shows?.row);
    const strong = row && wanted(row, mark.shows?.series);
    const color = strong && weak > 0 ? mix(strong, input.theme.sheet, weak) : strong;
    if (!row || !color) continue;
    const name = JSON.stringify([row.key, mark.shows?.series]);
    const entry = seen.get(name) ?? { row, color, colours: new Set<string>() };
    for (const c of [...coloursIn(mark.fill), ...coloursIn(mark.stroke)]) entry.colours.add(c);
    seen.set(name, entry);
  }
  const nearness = (colours: Set<string>, to: string) =>
    Math.min(...[...colours].map((c) => distance(c, to)));
  const all = [...new Set([...seen.values()].map((s) => s.color))];
  return [...seen.values()].flatMap(({ row, color, colours }) =>
    all.some((other) => nearness(colours, other) < nearness(colours, color) - 1)
      ? [`${row.label} is not in its colour`]
      : [],
  );
}
