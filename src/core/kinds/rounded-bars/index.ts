import { defineKind } from "../anatomy/kind";
import { ROUNDED_BARS_PARTS } from "./parts";
import { roundedBarsScene } from "./scene";

/** Rounded bars: what the registry of kinds knows of it. */
export const roundedBars = defineKind({
  id: "rounded bars",
  label: "Rounded bars",
  phrase: "rounded bars",
  purpose: "Values side by side, compared by their length.",
  roles: ["value", "split", "series", "order", "keep"],
  needsSplit: true,
  byLength: true,
  downwards: true,
  firstSize: { width: 400, height: 330 },
  tileSize: () => ({ width: 4, height: 42 }),
  parts: ROUNDED_BARS_PARTS,
  scene: roundedBarsScene,
});
