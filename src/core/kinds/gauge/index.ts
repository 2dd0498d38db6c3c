import { defineKind } from "../anatomy/kind";
import { ROLES } from "../roles";
import { GAUGE_PARTS } from "./parts";
import { gaugeScene } from "./scene";

export const gauge = defineKind({
  id: "gauge",
  label: "Gauge",
  phrase: "a gauge",
  roles: ROLES.gauge,
  needsSplit: false,
  parts: GAUGE_PARTS,
  scene: gaugeScene,
});
