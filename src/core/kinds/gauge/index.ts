import { defineKind } from "../anatomy/kind";
import { gaugeScale } from "./gauge-scale";
import { GAUGE_PARTS } from "./parts";
import { gaugeScene } from "./scene";
import { areShares, withEdges } from "./zones";

/** A gauge: what the registry of kinds knows of it. */
export const gauge = defineKind({
  id: "gauge",
  label: "Gauge",
  phrase: "a gauge",
  purpose: "One value on a scale with zones: where it stands, and whether that is good.",
  roles: ["value", "target", "range", "zones"],
  needsSplit: false,
  unmarked: (dials) => (dials["needle.form"] === "none" ? "the reading alone says the value" : null),
  ownColours: true,
  firstSize: { width: 400, height: 330 },
  tileSize: () => ({ width: 4, height: 42 }),
  parts: GAUGE_PARTS,
  alongside: (visual, data, dial, value) => {
    const as = value === "share" ? "share" : "value";
    if (dial !== "zones.edges" || (as === "share") === areShares(visual)) return null;
    const scale = gaugeScale(data, "hold", areShares(visual));
    return { zones: withEdges(visual.zones, scale, as) };
  },
  scene: gaugeScene,
});
