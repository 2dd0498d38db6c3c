import { defineKind } from "../anatomy/kind";
import { saysCentre } from "../anatomy/visual-reading";
import { DONUT_PARTS } from "./parts";
import { donutScene } from "./scene";

/** A donut: what the registry of kinds knows of it. */
export const donut = defineKind({
  id: "donut",
  label: "Donut",
  phrase: "a donut",
  purpose: "Parts of one whole, and the whole in the middle.",
  roles: ["value", "more", "split", "series", "order", "keep", "pictures"],
  sayPictures: saysCentre,
  picturesByFocus: true,
  needsSplit: true,
  wholeAs: () => "slices",
  sumsMeasures: true,
  firstSize: { width: 400, height: 330 },
  tileSize: () => ({ width: 4, height: 42 }),
  parts: DONUT_PARTS,
  scene: donutScene,
});
