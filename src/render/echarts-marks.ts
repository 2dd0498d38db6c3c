import { CustomChart } from "echarts/charts";
import * as echarts from "echarts/core";
import { SVGRenderer } from "echarts/renderers";
import { fontStack } from "@/core/scene/families";
import { type Mark, type Scene, textsOf } from "@/core/scene/marks";
import { drawRect, drawSector, type Pen } from "@/core/scene/outline";
import { elementOf } from "./echarts-elements";

/** The name that the custom series of all marks is registered by. */
export const SERIES = "cavlo.marks";
const CORNERS = { c0: 0, c1: 0, c2: 0, c3: 0 };
const SECTOR = { cx: 0, cy: 0, inner: 0, outer: 0, start: 0, end: 0, inset: 0, ...CORNERS };
const RECT = { x: 0, y: 0, width: 0, height: 0, ...CORNERS };

/**
 * The outlines of the core drawn by ECharts: the same geometry as everywhere else, and its numbers animate.
 */
const SectorShape = echarts.graphic.extendShape({
  shape: SECTOR,
  buildPath(pen: Pen, { c0, c1, c2, c3, ...shape }: typeof SECTOR) {
    drawSector(pen, { ...shape, corners: [c0, c1, c2, c3] });
  },
});
const RectShape = echarts.graphic.extendShape({
  shape: RECT,
  buildPath(pen: Pen, { c0, c1, c2, c3, ...shape }: typeof RECT) {
    drawRect(pen, { ...shape, radii: [c0, c1, c2, c3] });
  },
});

let registered = false;
/** Makes the series and its shapes known to ECharts, once. */
export function register(): void {
  if (registered) return;
  registered = true;
  echarts.use([CustomChart, SVGRenderer]);
  echarts.graphic.registerShape("cavloSector", SectorShape);
  echarts.graphic.registerShape("cavloRect", RectShape);
  echarts.registerCustomSeries(SERIES, (params) => {
    const payload = params.itemPayload as unknown as Payload;
    const mark = payload.markAt(params.dataIndex);
    return (mark ? elementOf(mark, payload.family()) : undefined) as never;
  });
}

/**
 * What the series draws from: a function passes through the option as it is; marks would be copied deeply at
 * every change.
 */
export interface Payload {
  markAt: (index: number) => Mark | undefined;
  family: () => string;
}

/** One item a mark, under the mark's name, so that the same row keeps its element when the data changes. */
export const itemsOf = (scene: Scene) => scene.marks.map((m, i) => ({ id: m.id, name: m.id, value: i }));

/** The series over a payload. */
export const seriesOf = (scene: Scene, itemPayload: Payload) => ({
  id: SERIES,
  type: "custom",
  renderItem: SERIES,
  coordinateSystem: "none",
  itemPayload,
  data: itemsOf(scene),
});

/** The scene as ECharts draws it, as SVG text: what the page shows, without a page. */
export function stillSvg(scene: Scene): string {
  register();
  const chart = echarts.init(null, null, {
    renderer: "svg",
    ssr: true,
    width: scene.width,
    height: scene.height,
  });
  chart.setOption({
    animation: false,
    series: [
      seriesOf(scene, {
        markAt: (i) => scene.marks[i],
        family: () => fontStack(scene.family, textsOf(scene)),
      }),
    ],
  } as never);
  const svg = chart.renderToSVGString();
  chart.dispose();
  return svg;
}
