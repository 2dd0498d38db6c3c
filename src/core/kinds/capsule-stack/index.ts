import { defineKind } from "../anatomy/kind";
import { ROLES } from "../roles";
import { CAPSULE_STACK_PARTS } from "./parts";
import { capsuleStackScene } from "./scene";

export const capsuleStack = defineKind({
  id: "capsule stack",
  label: "Capsule stack",
  phrase: "a capsule stack",
  roles: ROLES["capsule stack"],
  needsSplit: true,
  parts: CAPSULE_STACK_PARTS,
  scene: capsuleStackScene,
});
