import { defineKind } from "../anatomy/kind";
import { ROLES } from "../roles";
import { NUMBER_CARD_PARTS } from "./parts";
import { numberCardScene } from "./scene";

export const numberCard = defineKind({
  id: "number",
  label: "Number",
  phrase: "a number",
  roles: ROLES.number,
  needsSplit: false,
  parts: NUMBER_CARD_PARTS,
  scene: numberCardScene,
});
