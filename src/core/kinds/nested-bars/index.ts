import { defineKind } from "../anatomy/kind";
import { NESTED_BARS_PARTS } from "./parts";
import { nestedBarsScene } from "./scene";

/** Nested bars: what the registry of kinds knows of it. */
export const nestedBars = defineKind({
  id: "nested bars",
  label: "Nested bars",
  phrase: "nested bars",
  purpose: "Two measures of each row, one within the other.",
  roles: ["value", "second", "split", "order", "keep"],
  needsSplit: true,
  downwards: true,
  firstSize: { width: 400, height: 330 },
  tileSize: () => ({ width: 4, height: 42 }),
  parts: NESTED_BARS_PARTS,
  scene: nestedBarsScene,
});
