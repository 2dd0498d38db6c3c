import { defineKind } from "../anatomy/kind";
import { GAUGE_PARTS } from "./parts";
import { gaugeScene } from "./scene";

/** A gauge: what the registry of kinds knows of it. */
export const gauge = defineKind({
  id: "gauge",
  label: "Gauge",
  phrase: "a gauge",
  roles: ["value", "target", "range", "zones"],
  needsSplit: false,
  unmarked: (dials) => (dials["needle.form"] === "none" ? "the reading alone says the value" : null),
  ownColours: true,
  firstSize: { width: 400, height: 330 },
  tileSize: () => ({ width: 4, height: 6 }),
  parts: GAUGE_PARTS,
  scene: gaugeScene,
});
