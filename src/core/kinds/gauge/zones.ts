import type { Visual, Zone } from "../../project/schema";
import type { DrawnZone } from "../../rows/visual-data";
import type { Theme } from "../../scene/colour";
import { clamp, type Scale, shareOf } from "../anatomy/scale";

/** A zone as it lies on the scale: from and until are shares. */
export interface Stretch extends DrawnZone {
  from: number;
  until: number;
}
/** Zones in the order of their edges; one without goes to the end of the scale. */
const inRisingOrder = <Z extends Pick<DrawnZone, "to">>(zones: readonly Z[]): Z[] =>
  zones.toSorted((a, b) => (a.to ?? Number.POSITIVE_INFINITY) - (b.to ?? Number.POSITIVE_INFINITY));

/**
 * The zones as shares of the scale, in order; edges outside the scale are clipped and
 * empty stretches dropped.
 */
export function stretches(zones: DrawnZone[], scale: Scale): Stretch[] {
  let at = 0;
  const sorted = inRisingOrder(zones);
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
export const edgesAsValues = (zones: DrawnZone[], { minimum, maximum }: Scale): DrawnZone[] =>
  zones.map((z) => ({ ...z, to: z.to === null ? null : minimum + z.to * (maximum - minimum) }));

/** Whether the edges of a visual's zones are shares of its scale. */
export const areShares = ({ dials }: Pick<Visual, "dials">): boolean => dials["zones.edges"] === "share";

/** The zones with their written edges as values or as shares of the scale: they stay where they are. */
export function withEdges(zones: Zone[], { minimum, maximum }: Scale, as: "value" | "share"): Zone[] {
  const span = maximum - minimum;
  const moved = (to: number) => (as === "share" ? (to - minimum) / span : minimum + to * span);
  return zones.map((zone) =>
    typeof zone.to === "number" ? { ...zone, to: Number(moved(zone.to).toPrecision(12)) } : zone,
  );
}

/** The colour of a zone: its own, or its tone's. */
export const zoneColour = ({ color, tone }: Pick<Zone, "color" | "tone">, { tones }: Pick<Theme, "tones">) =>
  color ?? tones[tone];

/** The zone a value falls in: an edge belongs to the zone above it. */
export function zoneOf(zones: DrawnZone[], value: number): DrawnZone | null {
  return inRisingOrder(zones).find((z) => z.to === null || value < z.to) ?? null;
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
  const last = zones.flatMap((z) => (typeof z.to === "number" ? z.to : [])).at(-1) ?? 0;
  const to = Number((last * 1.05 || 1).toPrecision(3));
  return [...zones.slice(0, edges), { to, word: "zone", tone: "plain" }, ...zones.slice(edges)];
}

/** The zones without one; without its last edge a scale has no zones at all. */
export const withoutZone = (zones: Zone[], at: number): Zone[] =>
  zones.filter((z) => z.to !== null).length <= 1 ? [] : zones.filter((_, i) => i !== at);
