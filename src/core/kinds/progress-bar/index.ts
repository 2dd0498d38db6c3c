import { defineKind } from "../anatomy/kind";
import { ROLES } from "../roles";
import { PROGRESS_BAR_PARTS } from "./parts";
import { progressBarScene } from "./scene";

export const progressBar = defineKind({
  id: "progress bar",
  label: "Progress bar",
  phrase: "a progress bar",
  roles: ROLES["progress bar"],
  needsSplit: false,
  parts: PROGRESS_BAR_PARTS,
  scene: progressBarScene,
});
