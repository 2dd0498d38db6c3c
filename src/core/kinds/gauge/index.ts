import type { Kind } from "../kind";
import { GAUGE_PARTS } from "./parts";
import { gaugeScene } from "./scene";

export const gauge: Kind = {
  id: "gauge",
  label: "Gauge",
  phrase: "a gauge",
  roles: ["value", "target", "range", "zones"],
  needsSplit: false,
  parts: GAUGE_PARTS,
  scene: gaugeScene,
};
