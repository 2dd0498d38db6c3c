import { SMALLEST } from "../../scene/text";
import { arcExtent, polar } from "../anatomy/angles";
import type { SceneInput } from "../anatomy/kind";
import type { GaugePart } from "./parts";

type Input = SceneInput<GaugePart>;

/** End labels need a face of this radius; smaller ones give the room to the reading. */
export const ENDS_FROM = 58;

/** A reading under the hub is at most this share of the radius large. */
export const READING_SHARE = 0.36;

/** Where the arc stands: centre and radii in pixels, angles in degrees. */
export interface Face {
  cx: number;
  cy: number;
  r: number;
  inner: number;
  start: number;
  sweep: number;
  /** Nothing of the gauge stands lower: the foot has a line, or the frame ends. */
  bottom: number;
}

/** The reading as it will stand: its size, and half of its width, before the face's own size is known. */
export interface ReadingSize {
  size: number;
  half: number;
  /** Half of the width of the line under it, and its height, or 0. */
  lineHalf: number;
  under: number;
}

/** Where the arc begins and how far it sweeps: by the chosen opening, or as set. */
export function sweepOf(style: Input["style"]): { start: number; sweep: number } {
  const preset = style.choice("arc.preset");
  if (preset === "own") return { start: style.number("arc.start"), sweep: style.number("arc.sweep") };
  return { start: 360 - Number(preset) / 2, sweep: Number(preset) };
}

/** How far below the hub the middle of the reading stands when nothing is in its way. */
export function plainDrop(hub: number, size: number): number {
  return hub + 6 + size * 0.6;
}

/**
 * How far below the hub the middle of the reading stands, so that a needle at either end of the arc passes
 * beside it.
 */
export function readingDrop(style: Input["style"], hub: number, reading: ReadingSize): number {
  const plain = plainDrop(hub, reading.size);
  if (style.choice("needle.form") === "none") return plain;
  const { start, sweep } = sweepOf(style);
  const ends = [start, start + sweep].map((angle) => polar(0, 0, angle, 1));
  // An end that points steeply down leaves no way beside it.
  const slopes = ends
    .map(({ x, y }) => (y > 0.02 && Math.abs(x) > 0.02 ? y / Math.abs(x) : 0))
    .filter((slope) => slope < 0.8);
  return Math.max(plain, ...slopes.map((slope) => slope * (reading.half + 4) + reading.size * 0.42));
}

/** Whether a line of text around (x, y) lies clear of the arc, whose inside begins at `inner`. */
export function isClearOfArc(
  { cx, cy, r, start, sweep }: Face,
  inner: number,
  { x, y, half, size }: { x: number; y: number; half: number; size: number },
): boolean {
  const across = [-1, -0.5, 0, 0.5, 1].map((k) => x + k * half - cx);
  return [-0.42, 0, 0.42].every((k) =>
    across.every((dx) => {
      const dy = y + k * size - cy;
      const distance = Math.hypot(dx, dy);
      const turn = ((((Math.atan2(dx, -dy) * 180) / Math.PI - start) % 360) + 360) % 360;
      return turn > sweep || distance < inner - 1 || distance > r + 1;
    }),
  );
}

/** Where the reading stands from the hub. */
export type Way = "down" | "up" | "left" | "right";

const DIRECTION: Record<Way, number> = { up: 0, right: 90, down: 180, left: 270 };
const OPPOSITE: Record<Way, Way> = { up: "down", down: "up", left: "right", right: "left" };

/** An arc that sweeps farther than this has room for its reading inside, wherever its opening lies. */
export const INSIDE_FROM = 180;

/**
 * Where the reading can stand, from the best: towards the opening of the arc; where that is narrow, the
 * needle may pass there, and the other side of the hub is the next best.
 */
export function readingWays(start: number, sweep: number): Way[] {
  const opening = (start + sweep / 2 + 180) % 360;
  const turn = (way: Way) => Math.abs(((DIRECTION[way] - opening + 540) % 360) - 180);
  const [way] = (["down", "up", "left", "right"] as const).toSorted((a, b) => turn(a) - turn(b));
  return [...new Set([way, OPPOSITE[way], "down", "up", "left", "right"] as const)];
}

/**
 * The radius at which an arc fits a length, and what it then takes on the side of the reading: `near` and
 * `far` are how far it reaches to that side and away from it at radius 1, `need` what the reading takes.
 */
function fitAlong(length: number, near: number, far: number, need: number): number {
  const whole = length / Math.max(near + far, 1e-6);
  return Math.min(whole, need > 0 ? Math.max(length - need, length * 0.35) / Math.max(far, 1e-6) : whole);
}

/** The inner radius at which an arc that goes round has room for its reading at the smallest size. */
function insideNeeded(style: Input["style"], r: number, sweep: number, { size, half }: ReadingSize): number {
  if (size === 0 || sweep <= INSIDE_FROM + 20) return 0;
  const drop = plainDrop(Math.min(style.number("needle.hub"), r * 0.16), SMALLEST) + SMALLEST * 0.45;
  const wide = (half * SMALLEST) / size;
  return Math.hypot(wide, drop) + 2;
}

/** Places the arc so that it, its outer marks and the reading at the hub fit the body. */
export function layFace(
  input: Input,
  body: { x: number; y: number; width: number; height: number },
  margin: number,
  reading: ReadingSize,
): Face {
  const { style } = input;
  const { start, sweep } = sweepOf(style);
  const extent = arcExtent(start, sweep);
  const [wanted] = readingWays(start, sweep);
  const way = sweep > INSIDE_FROM && wanted !== "down" ? null : wanted;
  const width = Math.max(8, body.width - 2 * margin);
  const height = Math.max(8, body.height - (extent.top > 0.75 ? margin : 4));
  const hub = Math.min(style.number("needle.hub"), body.height * 0.06);
  // The reading stands under the hub; a wide arc has room for it in its opening, a half circle must leave
  // some below. A small face has no room to keep clear of its needle.
  const isPlain = body.height < 170 || way !== "down";
  const drop = isPlain ? plainDrop(hub, reading.size) : readingDrop(style, hub, reading);
  const tall = reading.size > 0 ? drop + reading.size * 0.6 + reading.under : hub;
  const wide = reading.size > 0 ? hub + 10 + 2 * Math.max(reading.half, reading.lineHalf) : hub;
  const level = (reading.size * 1.2 + reading.under) / 2;
  const needs: Record<Way, number> =
    way === "left" || way === "right"
      ? { up: level, down: level, left: 0, right: 0, [way]: wide }
      : { up: 0, down: 0, left: 0, right: 0, ...(way ? { [way]: tall } : {}) };
  const { left, right, top, bottom } = extent;
  const r = Math.max(
    6,
    Math.min(
      fitAlong(width, left, right, needs.left),
      fitAlong(width, right, left, needs.right),
      fitAlong(height, top, bottom, needs.up),
      fitAlong(height, bottom, top, needs.down),
    ),
  );
  const taken = {
    left: Math.max(left * r, needs.left),
    right: Math.max(right * r, needs.right),
    top: Math.max(top * r, needs.up),
    bottom: Math.max(bottom * r, needs.down),
  };
  const cx = body.x + (body.width - taken.left - taken.right) / 2 + taken.left;
  const cy = body.y + (body.height - height) + (height - taken.top - taken.bottom) / 2 + taken.top;
  const most = Math.min(style.number("arc.thickness"), r * 0.8, Math.max(3, r * 0.45));
  const thickness = Math.min(most, Math.max(3, r - insideNeeded(style, r, sweep, reading)));
  const lowest = input.countsNames ? body.y + body.height : input.frame.height;
  return { cx, cy, r, inner: r - thickness, start, sweep, bottom: lowest };
}
