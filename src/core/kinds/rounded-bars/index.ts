import { defineKind } from "../anatomy/kind";
import { ROLES } from "../roles";
import { ROUNDED_BARS_PARTS } from "./parts";
import { roundedBarsScene } from "./scene";

export const roundedBars = defineKind({
  id: "rounded bars",
  label: "Rounded bars",
  phrase: "rounded bars",
  roles: ROLES["rounded bars"],
  needsSplit: true,
  parts: ROUNDED_BARS_PARTS,
  scene: roundedBarsScene,
});
