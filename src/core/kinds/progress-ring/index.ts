import { defineKind } from "../anatomy/kind";
import { saysCentre } from "../anatomy/visual-reading";
import { PROGRESS_RING_PARTS } from "./parts";
import { progressRingScene } from "./scene";

/** A progress ring: what the registry of kinds knows of it. */
export const progressRing = defineKind({
  id: "progress ring",
  label: "Progress ring",
  phrase: "a progress ring",
  purpose: "How far a value has come to its target; several as rings within each other.",
  roles: ["value", "more", "target", "end", "split", "order", "keep", "pictures"],
  sayPictures: saysCentre,
  picturesByFocus: true,
  needsSplit: false,
  firstSize: { width: 400, height: 330 },
  tileSize: () => ({ width: 4, height: 42 }),
  parts: PROGRESS_RING_PARTS,
  scene: progressRingScene,
});
