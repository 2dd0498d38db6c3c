// How long a kind takes to draw its data into a scene, and the scene into SVG text. Floor: under 2 ms a scene.
import { sceneOf } from "@/core/kinds/picture";
import { PERCENT_FORMAT, PLAIN_FORMAT, type VisualData } from "@/core/kinds/visual-data";
import { type KindId, visualSchema } from "@/core/project/schema";
import { sceneToSvg } from "@/render/svg-text";
import { ms, timed } from "./median";

function data(rows: number, more: Partial<VisualData> = {}): VisualData {
  const values = Array.from({ length: rows }, (_, i) => 1_000_000 / (i + 1));
  const total = values.reduce((a, b) => a + b, 0);
  const names = {
    total: { value: total, format: PLAIN_FORMAT },
    value: { value: total, format: PLAIN_FORMAT },
    target: { value: 1_200_000, format: PLAIN_FORMAT },
    share: { value: 0.8, format: PERCENT_FORMAT },
    measure: "Passengers",
  };
  return {
    rows: values.map((value, i) => ({ key: `k${i}`, label: `Category number ${i + 1}`, value, groups: 0 })),
    total,
    target: 1_200_000,
    minimum: null,
    maximum: null,
    zones: [],
    format: PLAIN_FORMAT,
    valueLabel: "Passengers",
    splitLabel: "route",
    title: "Passengers by route",
    subtitle: "{total} carried",
    names,
    notes: [],
    problem: null,
    ...more,
  };
}
const zones: VisualData["zones"] = [
  { to: 500_000, word: "poor", tone: "poor" },
  { to: 900_000, word: "watch", tone: "watch" },
  { to: null, word: "good", tone: "good" },
];

const cases: [string, KindId, object, VisualData][] = [
  ["donut, 12 categories", "donut", {}, data(12)],
  ["donut, 12 categories, labels outside", "donut", { "labels.place": "outside", "labels.content": "category share" }, data(12)],
  ["donut, 200 categories", "donut", {}, data(200)],
  ["gauge with zones", "gauge", {}, data(1, { zones })],
  ["progress bar", "progress bar", {}, data(1)],
  ["progress bars, 12 rows", "progress bar", {}, data(12)],
  ["progress bars, 200 rows", "progress bar", {}, data(200)],
];
console.log("scene, median of 200 | with SVG text");
for (const [label, kind, dials, d] of cases) {
  const visual = visualSchema.parse({ id: "v", name: "v", kind, value: "m", dials, split: d.rows.length > 1 ? { column: "route" } : null });
  console.log(`${label.padEnd(40)} ${ms(timed(() => sceneOf(visual, d)))} | ${ms(timed(() => sceneToSvg(sceneOf(visual, d))))}`);
}
