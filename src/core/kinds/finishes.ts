import type { OwnFinish } from "../project/schema";
import type { DialKey, DialValue } from "./anatomy/dial";
import type { KindPart } from "./index";

/**
 * A named set of dial settings. A dial that a kind does not have is passed over, so one finish is defined for
 * every kind.
 */
export interface Finish {
  id: string;
  name: string;
  dials: FinishDials;
}

/** Settings of dials that some kind has, each with a value of its type. */
type FinishDials = { [Key in DialKey<KindPart, "number">]?: number } & {
  [Key in DialKey<KindPart, "toggle">]?: boolean;
} & { [Key in DialKey<KindPart, "choice" | "colour" | "palette">]?: string };

/** The finishes that ship, in the order they are offered. */
export const FINISHES: Finish[] = [
  { id: "plain", name: "Plain", dials: {} },
  {
    id: "soft",
    name: "Soft",
    dials: {
      "surface.shade": "soft",
      "surface.shadow": 9,
      "type.family": "nunito",
      "frame.radius": 20,
      "arc.gap": 5,
      "arc.corner": 7,
      "arc.caps": "round",
      "ring.caps": "round",
      "bar.corner": 100,
      "cell.shape": "circle",
      "petal.corner": 10,
      "petal.gap": 5,
      "zones.gap": 5,
    },
  },
  {
    id: "embossed",
    name: "Embossed",
    dials: {
      "surface.shade": "embossed",
      "surface.shadow": 5,
      "arc.gap": 1,
      "arc.corner": 0,
      "arc.caps": "flat",
      "ring.caps": "flat",
      "petal.gap": 1,
      "zones.gap": 1,
      "bar.corner": 40,
    },
  },
  {
    id: "dashed",
    name: "Dashed",
    dials: {
      "surface.dashes": 44,
      "surface.dashGap": 42,
      "ring.caps": "flat",
      "arc.caps": "flat",
      "arc.gap": 0,
      "arc.corner": 0,
      "bar.corner": 0,
      "petal.gap": 3,
      "cell.shape": "rounded",
      "cell.gap": 38,
      "spark.form": "bars",
    },
  },
  {
    id: "night",
    name: "Night",
    dials: {
      "frame.sheet": "night",
      "surface.shade": "ramp",
      "arc.gap": 3,
      "ring.caps": "round",
      "arc.caps": "round",
      "bar.corner": 100,
      "frame.border": false,
    },
  },
  {
    id: "outline",
    name: "Outline",
    dials: {
      "surface.shade": "outline",
      "arc.corner": 2,
      "arc.gap": 4,
      "zones.gap": 3,
      "petal.gap": 3,
      "petal.corner": 2,
      "bar.corner": 30,
      "type.family": "barlow",
    },
  },
  {
    id: "ledger",
    name: "Ledger",
    dials: {
      "type.family": "source serif",
      "colours.palette": "orchard",
      "arc.corner": 0,
      "arc.gap": 1.5,
      "arc.caps": "flat",
      "ring.caps": "flat",
      "ring.thickness": 10,
      "bar.corner": 0,
      "stem.width": 1,
      "cell.shape": "square",
      "petal.corner": 0,
      "frame.radius": 0,
      "heading.align": "middle",
    },
  },
];

/**
 * The dials of a finish: a shipped one, or one of the project's own over the shipped one it was made from.
 */
export function finishDials(id: string, own: OwnFinish[] = []): Record<string, DialValue>[] {
  const mine = own.find((f) => f.id === id);
  if (mine) return [mine.dials, shippedDials(mine.base)];
  return [shippedDials(id)];
}

const shippedDials = (id: string) =>
  (FINISHES.find((f) => f.id === id)?.dials ?? {}) as Record<string, DialValue>;
