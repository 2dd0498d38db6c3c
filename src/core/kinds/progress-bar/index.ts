import { defineKind } from "../anatomy/kind";
import { PROGRESS_BAR_PARTS } from "./parts";
import { progressBarScene } from "./scene";

/** A progress bar: what the registry of kinds knows of it. */
export const progressBar = defineKind({
  id: "progress bar",
  label: "Progress bar",
  phrase: "a progress bar",
  purpose: "How far each row has come to its target, one under the other.",
  roles: ["value", "target", "end", "split", "order", "keep"],
  needsSplit: false,
  byLength: true,
  firstSize: { width: 400, height: 180 },
  tileSize: (visual) => ({ width: 4, height: visual.split ? 42 : 21 }),
  parts: PROGRESS_BAR_PARTS,
  scene: progressBarScene,
});
