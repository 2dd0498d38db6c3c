import { defineKind } from "../anatomy/kind";
import { ROLES } from "../roles";
import { WAFFLE_PARTS } from "./parts";
import { waffleScene } from "./scene";

export const waffle = defineKind({
  id: "waffle",
  label: "Waffle",
  phrase: "a waffle",
  roles: ROLES.waffle,
  needsSplit: false,
  parts: WAFFLE_PARTS,
  scene: waffleScene,
});
