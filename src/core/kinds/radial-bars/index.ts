import { defineKind } from "../anatomy/kind";
import { saysCentre } from "../anatomy/visual-reading";
import { RADIAL_BARS_PARTS } from "./parts";
import { radialBarsScene } from "./scene";

/** Radial bars: what the registry of kinds knows of it. */
export const radialBars = defineKind({
  id: "radial bars",
  label: "Radial bars",
  phrase: "radial bars",
  purpose: "A few values bent around a centre: an eye-catcher, less exact than bars.",
  roles: ["value", "target", "end", "split", "order", "keep", "pictures"],
  sayPictures: saysCentre,
  picturesByFocus: true,
  needsSplit: true,
  firstSize: { width: 400, height: 330 },
  tileSize: () => ({ width: 4, height: 42 }),
  parts: RADIAL_BARS_PARTS,
  scene: radialBarsScene,
});
