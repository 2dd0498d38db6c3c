import { defineKind } from "../anatomy/kind";
import { ROLES } from "../roles";
import { ROSE_PARTS } from "./parts";
import { roseScene } from "./scene";

export const rose = defineKind({
  id: "rose",
  label: "Rose",
  phrase: "a rose",
  roles: ROLES.rose,
  needsSplit: true,
  parts: ROSE_PARTS,
  scene: roseScene,
});
