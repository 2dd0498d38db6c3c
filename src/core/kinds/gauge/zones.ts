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

/** The zone a value falls in: an edge belongs to the zone above it. */
export function zoneOf(zones: Zone[], value: number): Zone | null {
  const sorted = zones.toSorted(
    (a, b) => (a.to ?? Number.POSITIVE_INFINITY) - (b.to ?? Number.POSITIVE_INFINITY),
  );
  return sorted.find((z) => z.to === null || value < z.to) ?? null;
}
