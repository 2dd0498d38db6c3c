import { defineKind } from "../anatomy/kind";
import { ROLES } from "../roles";
import { LOLLIPOP_PARTS } from "./parts";
import { lollipopScene } from "./scene";

export const lollipop = defineKind({
  id: "lollipop",
  label: "Lollipop",
  phrase: "lollipops",
  roles: ROLES.lollipop,
  needsSplit: true,
  parts: LOLLIPOP_PARTS,
  scene: lollipopScene,
});
