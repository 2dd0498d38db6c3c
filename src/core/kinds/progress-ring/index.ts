import { defineKind } from "../anatomy/kind";
import { ROLES } from "../roles";
import { PROGRESS_RING_PARTS } from "./parts";
import { progressRingScene } from "./scene";

export const progressRing = defineKind({
  id: "progress ring",
  label: "Progress ring",
  phrase: "a progress ring",
  roles: ROLES["progress ring"],
  needsSplit: false,
  parts: PROGRESS_RING_PARTS,
  scene: progressRingScene,
});
