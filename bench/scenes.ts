// How long each kind takes to draw its data into a scene, the scene into SVG text, and into a PNG at twice
// its size.

import { PERCENT_FORMAT } from "@/core/base/number-format";
import { KINDS } from "@/core/kinds";
import { visualSchema } from "@/core/project/schema";
import type { VisualData } from "@/core/rows/visual-data";
import { sceneOf } from "@/core/view/picture";
import { sceneToPng } from "@/render/png";
import { sceneToSvg } from "@/render/svg-text";
import { MANY_VALUES, ONE_VALUE, WITH_SERIES, ZONES } from "@/testing/craft/cases";
import { sampleData, seriesData } from "@/testing/craft/sample-data";
import { ms, timed } from "./median";

const values = (rows: number) => Array.from({ length: rows }, (_, i) => 1_000_000 / (i + 1));
const many = (rows: number, series: boolean): VisualData =>
  series
    ? seriesData(values(rows / 4).map((v) => [v, v / 2, v / 3, v / 4]))
    : sampleData(values(rows), { target: 1_200_000 });
const one = sampleData([0.864], {
  format: PERCENT_FORMAT,
  target: 0.92,
  minimum: 0,
  maximum: 1,
  zones: ZONES,
});

const worst = { scene12: 0, scene200: 0, svg: 0, png: 0 };
console.log("medians of 200 drawings: scene | with SVG text | PNG at 2x (of 12)");
for (const kind of KINDS) {
  const cases: [string, VisualData][] = [
    ...(ONE_VALUE.includes(kind.id) ? [["one value", one] as [string, VisualData]] : []),
    ...(MANY_VALUES.includes(kind.id)
      ? ([12, 200] as const).map((n): [string, VisualData] => [
          `${n} values`,
          many(n, WITH_SERIES.includes(kind.id) && kind.id !== "donut"),
        ])
      : []),
  ];
  for (const [label, data] of cases) {
    const visual = visualSchema.parse({
      id: "v",
      name: "v",
      kind: kind.id,
      value: "m",
      split: data.splitLabel ? { column: "route" } : null,
    });
    const draw = () => sceneOf(visual, data);
    const scene = timed(draw);
    const svg = timed(() => sceneToSvg(draw()));
    const png = label.startsWith("200") ? null : timed(() => sceneToPng(draw(), 2, process.cwd()), 12, 2);
    if (label.startsWith("200")) worst.scene200 = Math.max(worst.scene200, scene);
    else worst.scene12 = Math.max(worst.scene12, scene);
    worst.svg = Math.max(worst.svg, svg);
    worst.png = Math.max(worst.png, png ?? 0);
    console.log(
      `${`${kind.label}, ${label}`.padEnd(32)} ${ms(scene)} | ${ms(svg)} | ${png === null ? "" : ms(png)}`,
    );
  }
}
console.log(
  `slowest: scene up to 12 values ${ms(worst.scene12)}, of 200 values ${ms(worst.scene200)}, SVG ${ms(worst.svg)}, PNG ${ms(worst.png)}`,
);
