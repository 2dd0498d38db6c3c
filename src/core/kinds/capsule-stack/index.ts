import { defineKind } from "../anatomy/kind";
import { CAPSULE_STACK_PARTS } from "./parts";
import { capsuleStackScene } from "./scene";

/** A capsule stack: what the registry of kinds knows of it. */
export const capsuleStack = defineKind({
  id: "capsule stack",
  label: "Capsule stack",
  phrase: "a capsule stack",
  purpose: "Totals side by side, and what each of them is made of.",
  roles: ["value", "split", "series", "order", "keep"],
  needsSplit: true,
  wholeAs: ({ series }) => (series.length > 0 ? "stacks" : null),
  dividedAtFirst: true,
  downwards: true,
  firstSize: { width: 400, height: 330 },
  tileSize: () => ({ width: 4, height: 42 }),
  parts: CAPSULE_STACK_PARTS,
  scene: capsuleStackScene,
});
