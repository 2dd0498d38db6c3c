import { CustomChart, PieChart } from "echarts/charts";
import { AriaComponent, TooltipComponent } from "echarts/components";
import * as echarts from "echarts/core";
import { SVGRenderer } from "echarts/renderers";

echarts.use([CustomChart, PieChart, TooltipComponent, AriaComponent, SVGRenderer]);

/** Shows an option in a page element, as a page that has the library would. Gives what ends that. */
export function showOption(
  element: HTMLElement,
  option: object,
  size: { width: number; height: number },
): () => void {
  const chart = echarts.init(element, null, { renderer: "svg", ...size });
  chart.setOption(option as Parameters<typeof chart.setOption>[0]);
  return () => chart.dispose();
}
