import { defineKind } from "../anatomy/kind";
import { NUMBER_CARD_PARTS } from "./parts";
import { numberCardScene } from "./scene";

/** A number card: what the registry of kinds knows of it. */
export const numberCard = defineKind({
  id: "number",
  label: "Number",
  phrase: "a number",
  purpose: "One number, how it has changed, and its course.",
  roles: ["value", "comparison", "split"],
  needsSplit: false,
  course: true,
  unmarked: (dials) => (dials["spark.form"] === "bars" ? null : "its rows are one line"),
  ownColours: true,
  firstSize: { width: 320, height: 210 },
  tileSize: () => ({ width: 4, height: 42 }),
  parts: NUMBER_CARD_PARTS,
  scene: numberCardScene,
});
