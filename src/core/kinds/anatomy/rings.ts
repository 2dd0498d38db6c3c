import type { RowKey } from "../../rows/row-key";
import type { Box } from "../../scene/box";
import { mix } from "../../scene/colour";
import type { Handle, Mark, Sector } from "../../scene/marks";
import { arcExtent, polar } from "./angles";
import type { NumberDial, Part } from "./dial";
import type { SceneInput } from "./kind";
import { clamp, type PastEnd } from "./scale";
import type { SharedInput, SharedPart } from "./shared-parts";
import type { HandlePlace } from "./style";

/** Where rings stand: their centre, the outermost radius, and how far the swept part reaches. */
export interface Centre {
  cx: number;
  cy: number;
  r: number;
}

/**
 * Places a ring so that the part of it that is swept fills the box; a partial ring is not given room
 * for the rest.
 */
export function layCentre(box: Box, start: number, sweep: number, side: number, margin: number): Centre {
  const { left, right, top, bottom } = arcExtent(start, sweep);
  const r = Math.max(
    4,
    Math.min((box.width - 2 * side) / (left + right), (box.height - 2 * margin) / (top + bottom)),
  );
  return {
    cx: box.x + box.width / 2 + ((left - right) * r) / 2,
    cy: box.y + box.height / 2 + ((top - bottom) * r) / 2,
    r,
  };
}

/**
 * Concentric rings from the outside in: all of one thickness, shrunk together until they fit above `least` of
 * the radius.
 */
export function layRings(
  r: number,
  count: number,
  thickness: number,
  gap: number,
  least: number,
): { inner: number; outer: number }[] {
  const room = r * (1 - least);
  const between = Math.min(gap, room / (count * 3));
  const each = Math.max(1, Math.min(thickness, (room - between * (count - 1)) / count));
  return Array.from({ length: count }, (_, i) => {
    const outer = r - i * (each + between);
    return { inner: Math.max(0, outer - each), outer };
  });
}

/** What one progress arc is drawn from. */
export interface Arc {
  key: RowKey;
  part: string;
  cx: number;
  cy: number;
  inner: number;
  outer: number;
  start: number;
  sweep: number;
  /** The value's share of the scale's length; may be below 0 and past 1. */
  share: number;
  past: PastEnd;
  round: boolean;
  color: string;
  track: string | null;
  trackOpacity?: number;
  datum?: Mark["datum"];
  /** The row's value; null draws the track alone. */
  value: number | null;
  opacity: number;
}

/** A shape of an arc over some of its sweep, in a colour. */
function sectorOf(arc: Arc, id: string, end: number, fill: string): Sector {
  const { cx, cy, inner, outer, start, sweep, datum, opacity, key, part } = arc;
  const cap = arc.round ? (outer - inner) / 2 : 0;
  return {
    type: "sector",
    id: `${id}:${key}`,
    part,
    cx,
    cy,
    inner,
    outer,
    start,
    end,
    inset: 0,
    corners: [cap, cap, cap, cap],
    fill,
    datum,
    opacity,
    whole: { from: start, to: start + sweep, axis: "angle" },
    surface: "data",
    grow: "sweep",
  };
}

/** The whole way of an arc, under it. */
function trackOf(arc: Arc, fill: string): Sector {
  const { start, sweep, opacity, trackOpacity = 1 } = arc;
  const track = sectorOf(arc, "track", start + sweep, fill);
  const isClosed = sweep >= 360 - 1e-6;
  return {
    ...track,
    part: "track",
    surface: "track",
    corners: isClosed ? [0, 0, 0, 0] : track.corners,
    opacity: opacity * trackOpacity,
    grow: undefined,
  };
}

/** A second lap, thinner and darker over the first. */
function lapOf(arc: Arc, ink: string): Sector {
  const { start, sweep, share, inner, outer } = arc;
  const thin = (outer - inner) * 0.27;
  const cap = arc.round ? (outer - inner - 2 * thin) / 2 : 0;
  return {
    ...sectorOf(arc, "lap", start + sweep * clamp(share - 1), mix(arc.color, ink, 0.5)),
    inner: inner + thin,
    outer: outer - thin,
    corners: [cap, cap, cap, cap],
    surface: undefined,
    whole: undefined,
  };
}

/** The tip of a value past the end: it stands at the end of the scale, on the arc, so that none is longer. */
function tipOf(arc: Arc, ink: string): Mark {
  const { cx, cy, inner, outer, start, sweep, key, part, datum } = arc;
  const half = Math.min((outer - inner) * 0.36, 9);
  const middle = (inner + outer) / 2;
  const turn = Math.min(sweep / 6, ((half * 1.2) / Math.max(middle, 1)) * (180 / Math.PI));
  return {
    type: "polygon",
    id: `past:${key}`,
    part,
    ...polar(cx, cy, start + sweep - turn, middle),
    rotate: start + sweep - turn / 2 + 90,
    points: [
      [-half, half * 0.6],
      [0, -half * 0.7],
      [half, half * 0.6],
    ],
    fill: ink,
    datum,
  };
}

/**
 * A track, the arc over it, and what it does past its end: a mark where it holds, a darker and thinner second
 * lap where it laps.
 */
export function arcMarks({ theme, surface }: SharedInput, arc: Arc): Mark[] {
  const { start, sweep, share, past, color } = arc;
  const marks: Mark[] = arc.track ? [trackOf(arc, arc.track)] : [];
  const shows = { row: arc.key, value: arc.value ?? 0, channel: "angle" } as const;
  if (share > 0) marks.push({ ...sectorOf(arc, "arc", start + sweep * clamp(share), color), shows });
  const isPast = share > 1 + 1e-12;
  if (isPast && past === "lap") marks.push(lapOf(arc, theme.ink));
  if (isPast && past === "hold") marks.push(tipOf(arc, surface.inkOn(color)));
  return marks;
}

/** Where the handle that turns a ring stands: where the ring begins. */
export const startPlace = (start: number, { cx, cy, r }: Centre): HandlePlace => ({
  ...polar(cx, cy, start, r),
  track: (from, to) => ({ type: "angular", cx, cy, r, start: from, end: to }),
});

type RingInput = SceneInput<
  Part<"ring", NumberDial<"start"> | NumberDial<"sweep"> | NumberDial<"thickness">> | SharedPart
>;

/** The handles of a ring: its start, and how thick it is. */
export function ringHandles({ style }: RingInput, centre: Centre, inner: number): Handle[] {
  const [start, sweep] = [style.number("ring.start"), style.number("ring.sweep")];
  const { cx, cy, r } = centre;
  const angle = start + sweep / 2;
  return [
    style.handle("ring.start", startPlace(start, centre)),
    style.handle("ring.thickness", {
      ...polar(cx, cy, angle, inner),
      track: (from, to) => ({ type: "radial", cx, cy, angle, r0: r - from, r1: r - to }),
    }),
  ];
}
