import type { Zone } from "../../project/schema";
import { clamp, type Scale, shareOf } from "../anatomy/scale";

/** A zone as it lies on the scale: from and until are shares, index is its place in the sentence. */
export interface Stretch extends Zone {
  index: number;
  from: number;
  until: number;
}
/**
 * The zones as shares of the scale, in order; edges outside the scale are clipped and empty stretches
 * dropped.
 */
export function stretches(zones: Zone[], scale: Scale): Stretch[] {
  let at = 0;
  const sorted = zones
    .map((zone, index) => ({ ...zone, index }))
    .sort((a, b) => (a.to ?? Number.POSITIVE_INFINITY) - (b.to ?? Number.POSITIVE_INFINITY));
  return sorted
    .map((zone) => {
      const until = zone.to === null ? 1 : clamp(shareOf(zone.to, scale), at, 1);
      const stretch = { ...zone, from: at, until };
      at = until;
      return stretch;
    })
    .filter((s) => s.until > s.from);
}

/** Zones with their edges as values, where they are given as shares of the scale. */
export const edgesAsValues = (zones: Zone[], { minimum, maximum }: Scale): Zone[] =>
  zones.map((z) => ({ ...z, to: z.to === null ? null : minimum + z.to * (maximum - minimum) }));

/** The zone a value falls in: an edge belongs to the zone above it. */
export function zoneOf(zones: Zone[], value: number): Zone | null {
  const sorted = zones.toSorted(
    (a, b) => (a.to ?? Number.POSITIVE_INFINITY) - (b.to ?? Number.POSITIVE_INFINITY),
  );
  return sorted.find((z) => z.to === null || value < z.to) ?? null;
}

/** Two edges at two thirds and nine tenths of the scale: what a first pair of zones looks like. */
export function firstZones(maximum: number): Zone[] {
  return [
    { to: Number((maximum * 0.7).toPrecision(3)), word: "poor", tone: "poor" },
    { to: Number((maximum * 0.9).toPrecision(3)), word: "watch", tone: "watch" },
    { to: null, word: "good", tone: "good" },
  ];
}

/** The zones with one more, a little past the last edge. */
export function withZone(zones: Zone[]): Zone[] {
  const edges = zones.filter((z) => z.to !== null).length;
  const last = zones.findLast((z) => z.to !== null)?.to ?? 0;
  const to = Number((last * 1.05 || 1).toPrecision(3));
  return [...zones.slice(0, edges), { to, word: "zone", tone: "plain" }, ...zones.slice(edges)];
}

/** The zones without one; without its last edge a scale has no zones at all. */
export const withoutZone = (zones: Zone[], at: number): Zone[] =>
  zones.filter((z) => z.to !== null).length <= 1 ? [] : zones.filter((_, i) => i !== at);
