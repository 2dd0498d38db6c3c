import { defineKind } from "../anatomy/kind";
import { ROSE_PARTS } from "./parts";
import { roseScene } from "./scene";

/** A rose: what the registry of kinds knows of it. */
export const rose = defineKind({
  id: "rose",
  label: "Rose",
  phrase: "a rose",
  purpose: "A few values as petals, for parts whose order goes around.",
  roles: ["value", "split", "order", "keep"],
  needsSplit: true,
  wholeAs: () => "petals",
  firstSize: { width: 400, height: 330 },
  tileSize: () => ({ width: 4, height: 42 }),
  parts: ROSE_PARTS,
  scene: roseScene,
});
