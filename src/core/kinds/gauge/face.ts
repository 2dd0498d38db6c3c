import { arcExtent, polar } from "../anatomy/angles";
import type { SceneInput } from "../anatomy/kind";
import type { GaugePart } from "./parts";

type Input = SceneInput<GaugePart>;

/** End labels need a face of this radius; smaller ones give the room to the reading. */
export const ENDS_FROM = 58;

/** Where the arc stands: centre and radii in pixels, angles in degrees. */
export interface Face {
  cx: number;
  cy: number;
  r: number;
  inner: number;
  start: number;
  sweep: number;
}

/** The reading as it will stand: its size, and half of its width, before the face's own size is known. */
export interface ReadingSize {
  size: number;
  half: number;
  /** Height of the line under it, or 0. */
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

/** Places the arc so that it, its outer marks and the reading below the hub fit the body. */
export function layFace(
  input: Input,
  body: { x: number; y: number; width: number; height: number },
  margin: number,
  reading: ReadingSize,
): Face {
  const { style } = input;
  const { start, sweep } = sweepOf(style);
  const extent = arcExtent(start, sweep);
  const width = Math.max(8, body.width - 2 * margin);
  const height = Math.max(8, body.height - (extent.top > 0.99 ? margin : 4));
  const hub = Math.min(style.number("needle.hub"), body.height * 0.06);
  // The reading stands under the hub; a wide arc has room for it in its opening, a half circle must leave
  // some below. A small face has no room to keep clear of its needle.
  const drop = body.height < 170 ? plainDrop(hub, reading.size) : readingDrop(style, hub, reading);
  const below = reading.size > 0 ? drop + reading.size * 0.6 + reading.under : hub;
  const r = Math.max(
    6,
    Math.min(
      width / (extent.left + extent.right),
      height / (extent.top + extent.bottom),
      Math.max(height - below, height * 0.35) / extent.top,
    ),
  );
  const bottom = Math.max(extent.bottom * r, below);
  const cx = body.x + body.width / 2 + ((extent.left - extent.right) * r) / 2;
  const cy = body.y + (body.height - height) + (height - (extent.top * r + bottom)) / 2 + extent.top * r;
  const thickness = Math.min(style.number("arc.thickness"), r * 0.8, Math.max(3, r * 0.45));
  return { cx, cy, r, inner: r - thickness, start, sweep };
}
