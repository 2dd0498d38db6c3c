import { defineKind } from "../anatomy/kind";
import { ROLES } from "../roles";
import { RADIAL_BARS_PARTS } from "./parts";
import { radialBarsScene } from "./scene";

export const radialBars = defineKind({
  id: "radial bars",
  label: "Radial bars",
  phrase: "radial bars",
  roles: ROLES["radial bars"],
  needsSplit: true,
  parts: RADIAL_BARS_PARTS,
  scene: radialBarsScene,
});
