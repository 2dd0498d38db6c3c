import { defineKind } from "../anatomy/kind";
import { WAFFLE_PARTS } from "./parts";
import { sharesOneGrid, waffleScene } from "./scene";

/** A waffle: what the registry of kinds knows of it. */
export const waffle = defineKind({
  id: "waffle",
  label: "Waffle",
  phrase: "a waffle",
  purpose: "A share as cells that can be counted.",
  roles: ["value", "target", "split", "order", "keep", "pictures"],
  sayPictures: (count) =>
    count === 1 ? "with a picture in the cells" : `with ${count} pictures in the cells`,
  needsSplit: false,
  wholeAs: (data, style) => (sharesOneGrid(data, String(style.value("cell.grids"))) ? "slices" : null),
  firstSize: { width: 400, height: 330 },
  tileSize: () => ({ width: 4, height: 42 }),
  parts: WAFFLE_PARTS,
  scene: waffleScene,
});
