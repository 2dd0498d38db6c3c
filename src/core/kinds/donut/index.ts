import { defineKind } from "../anatomy/kind";
import { ROLES } from "../roles";
import { DONUT_PARTS } from "./parts";
import { donutScene } from "./scene";

export const donut = defineKind({
  id: "donut",
  label: "Donut",
  phrase: "a donut",
  roles: ROLES.donut,
  needsSplit: true,
  parts: DONUT_PARTS,
  scene: donutScene,
});
