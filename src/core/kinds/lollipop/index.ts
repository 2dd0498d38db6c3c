import { defineKind } from "../anatomy/kind";
import { LOLLIPOP_PARTS } from "./parts";
import { lollipopScene } from "./scene";

/** Lollipops: what the registry of kinds knows of it. */
export const lollipop = defineKind({
  id: "lollipop",
  label: "Lollipop",
  phrase: "lollipops",
  purpose: "Many values compared by where their heads stand, lighter than bars.",
  roles: ["value", "split", "baseline", "headSize", "pictures", "order", "keep"],
  sayPictures: (count) => `with pictures in ${count} ${count === 1 ? "head" : "heads"}`,
  needsSplit: true,
  byLength: true,
  downwards: true,
  firstSize: { width: 400, height: 330 },
  tileSize: () => ({ width: 4, height: 42 }),
  parts: LOLLIPOP_PARTS,
  scene: lollipopScene,
});
