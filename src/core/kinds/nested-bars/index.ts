import { defineKind } from "../anatomy/kind";
import { ROLES } from "../roles";
import { NESTED_BARS_PARTS } from "./parts";
import { nestedBarsScene } from "./scene";

export const nestedBars = defineKind({
  id: "nested bars",
  label: "Nested bars",
  phrase: "nested bars",
  roles: ROLES["nested bars"],
  needsSplit: true,
  parts: NESTED_BARS_PARTS,
  scene: nestedBarsScene,
});
