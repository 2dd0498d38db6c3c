import type { HandleEdit } from "../project/handle-edits";
import type { RowKey, Side } from "../rows/row-key";

/** A colour of a ramp at a share of its way, 0 to 1. */
export interface Stop {
  at: number;
  color: string;
}
/**
 * A colour, a ramp across the mark's own box (0 to 1 both ways), or a ramp outwards from a point of
 * the scene (pixels).
 */
export type Fill =
  | string
  | { type: "linear"; x0: number; y0: number; x1: number; y1: number; stops: Stop[] }
  | { type: "radial"; cx: number; cy: number; r: number; stops: Stop[] };

/** A soft shadow under a mark, in pixels. */
export interface Shadow {
  blur: number;
  dx: number;
  dy: number;
  color: string;
  opacity: number;
}

/**
 * Where a shape grows from when it first appears: an edge of its box, the start of its sweep, or its middle.
 */
export type Growth = "left" | "right" | "top" | "bottom" | "sweep" | "middle";

/** What a mark stands for: what the pointer finds there, and what the tooltip says. */
export interface Datum {
  /** Names the row of the result, so that the same row keeps its mark when the data changes. */
  key: RowKey;
  title: string;
  /** What is said of it; `exact` is the number in full, where that is written shorter. */
  lines: { label: string; value: string; exact?: string | undefined }[];
  /** Where it is no row but one of the series, as a legend names them. */
  side?: "series";
  /** The one of its row's series whose value it is. */
  series?: RowKey;
}

/** What the pointer or the arrow keys rest on: a row, and the one of its series where it is drawn in several. */
export interface Focus {
  row: RowKey;
  series?: RowKey;
}

/** A category of a picture: its key, and which split it is of. */
export interface CategoryOf {
  key: RowKey;
  side: Side;
}

/** How a value can be read off a mark. */
export type Channel = "length" | "angle" | "area" | "position" | "count";

/** A series of the data, or which of two values of one row where a kind draws both. */
export type SeriesKey = RowKey | "outer" | "inner";

/** The value that a mark stands for: of which row (its key) and series, and the channel that shows it. */
export interface Shown {
  row: RowKey;
  series?: SeriesKey;
  value: number;
  channel: Channel;
}

interface MarkBase {
  id: string;
  /** The part of the kind's anatomy that this mark draws. */
  part: string;
  fill?: Fill;
  stroke?: string;
  strokeWidth?: number;
  opacity?: number;
  shadow?: Shadow;
  /** What is left of the shape outside this box with rounded corners is not drawn. */
  clip?: { x: number; y: number; width: number; height: number; radii: [number, number, number, number] };
  grow?: Growth;
  /** What the surface of a finish is applied to: shapes that stand for values, and the tracks under them. */
  surface?: "data" | "track";
  /**
   * The whole that dashes are spread over: for a sector its angles, for a box its near and far edge along
   * `axis`; `cells` where their number is not the finish's.
   */
  whole?: { from: number; to: number; axis: "angle" | "x" | "y"; cells?: number };
  datum?: Datum;
  /** The row that a legend's entry names: the mark stands for it, and its shape says what there is to say. */
  names?: RowKey;
  /** Dashes and steps that a mark is cut into say the same as the whole of it. */
  shows?: Shown;
}

/**
 * A piece of a ring. Angles in degrees, 0 at twelve o'clock, clockwise. `inset` moves both straight edges
 * inwards by so many pixels (half of a gap with parallel sides). `corners`: outer start, outer end, inner
 * end, inner start.
 */
export interface Sector extends MarkBase {
  type: "sector";
  cx: number;
  cy: number;
  inner: number;
  outer: number;
  start: number;
  end: number;
  inset: number;
  corners: [number, number, number, number];
}
/** `radii`: top left, top right, bottom right, bottom left. */
export interface Rect extends MarkBase {
  type: "rect";
  x: number;
  y: number;
  width: number;
  height: number;
  radii: [number, number, number, number];
}
/** A disc, in pixels. */
export interface Circle extends MarkBase {
  type: "circle";
  cx: number;
  cy: number;
  r: number;
}
/** A closed polygon around the origin (x, y), turned clockwise by `rotate` degrees. */
export interface Polygon extends MarkBase {
  type: "polygon";
  x: number;
  y: number;
  rotate: number;
  points: [number, number][];
}
/** A stroke between two points, in pixels. */
export interface Line extends MarkBase {
  type: "line";
  points: [number, number][];
}
/**
 * Outlines as SVG path data in a box of `box` units a side, drawn at (x, y) over `size` pixels: an icon.
 * Icons are strokes unless they have a fill.
 */
export interface Icon extends MarkBase {
  type: "icon";
  x: number;
  y: number;
  size: number;
  box: number;
  d: string;
}
/** A picture that a user brought, as a data address, within its box. */
export interface Picture extends MarkBase {
  type: "picture";
  x: number;
  y: number;
  width: number;
  height: number;
  href: string;
}
/** A letter with a place of its own: the middle of its width and height, turned clockwise by degrees. */
export interface Letter {
  text: string;
  x: number;
  y: number;
  turn: number;
}
/**
 * One line of text; `y` is the middle of its height. A line that is bent has its letters' places; its own is
 * its middle.
 */
export interface Text extends MarkBase {
  type: "text";
  x: number;
  y: number;
  text: string;
  size: number;
  weight: 400 | 500 | 600 | 700;
  align: "start" | "middle" | "end";
  fill: string;
  letters?: Letter[];
}
/** Whatever a scene is made of. */
export type Mark = Sector | Rect | Circle | Polygon | Line | Icon | Picture | Text;

/** How a handle's pointer position becomes a number of its dial. */
export type Track =
  | { type: "radial"; cx: number; cy: number; angle: number; r0: number; r1: number }
  | { type: "angular"; cx: number; cy: number; r: number; start: number; end: number }
  | { type: "straight"; x0: number; y0: number; x1: number; y1: number };

/**
 * A point on the stage that changes one number: `from` and `to` are the numbers at the two ends of the track.
 */
export interface Handle {
  id: string;
  edit: HandleEdit;
  label: string;
  value: number;
  from: number;
  to: number;
  step: number;
  text: string;
  x: number;
  y: number;
  track: Track;
}

/** A finished picture: plain data, every position in pixels. The same input always gives the same scene. */
export interface Scene {
  theme: "light" | "night";
  width: number;
  height: number;
  background: string | null;
  border: { color: string; radius: number } | null;
  /** The type family of all texts, a name of FAMILIES. */
  family: string;
  /** How long entering shapes and changes move, in milliseconds. */
  motion: { entry: number; change: number };
  marks: Mark[];
  handles: Handle[];
  /** The picture in words, for readers who cannot see it. */
  description: string;
}

/** What a scene writes, text by text. */
export const textsOf = (scene: Pick<Scene, "marks">): string[] =>
  scene.marks.flatMap((mark) => (mark.type === "text" ? [mark.text] : []));

/** The category that a mark stands for: what is picked or lit up by it; null for none. */
export const categoryOf = ({ datum, names }: Pick<Mark, "datum" | "names">): CategoryOf | null =>
  datum ? { key: datum.key, side: datum.side ?? "split" } : names ? { key: names, side: "split" } : null;

/** What a mark puts in focus when it is pointed at; null where it stands for no row. */
export function focusOf({ datum, names }: Pick<Mark, "datum" | "names">): Focus | null {
  const of = categoryOf({ datum, names });
  if (of?.side !== "split") return null;
  return { row: of.key, ...(datum?.series === undefined ? {} : { series: datum.series }) };
}
