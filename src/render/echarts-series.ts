import * as echarts from "echarts/core";
import { familyOf, fontStack } from "@/core/scene/families";
import { type Datum, focusOf, type Mark, type Scene, textsOf } from "@/core/scene/marks";
import { textWidth } from "@/core/scene/text";
import { itemsOf, register, SERIES, seriesOf } from "./echarts-marks";
import type { StartPicture } from "./painter/live";
import { tooltipOf } from "./tooltip";

/**
 * The chart library asks for the size of letters, an ideograph among them, in every face that it draws: the
 * page would look through all its fonts. Texts are placed by the core, so that a near width serves.
 */
echarts.setPlatformAPI({
  measureText: (text, font) => ({
    width: textWidth(text, Number.parseFloat(/([\d.]+)px/.exec(font ?? "")?.[1] ?? "12"), 400),
  }),
});

/** Starts a live picture that the chart library draws. */
export const startPicture: StartPicture = (element, size, listen) => {
  register();
  const chart = echarts.init(element, null, { renderer: "svg", ...size });
  let marks: Mark[] = [];
  let family = familyOf("").css;
  const itemPayload = { markAt: (index: number) => marks[index], family: () => family };
  const markAt = (event: unknown) => marks[(event as { dataIndex: number }).dataIndex];
  const tooltip = tooltipOf(element);
  let under: Datum | null = null;
  const point = (event: unknown) =>
    (event as { offsetX: number; offsetY: number }) ?? { offsetX: 0, offsetY: 0 };
  chart.getZr().on("mousemove", (event) => {
    if (under) tooltip.show(under, point(event).offsetX, point(event).offsetY, drawn ?? "light");
  });
  chart.on("mouseover", (event) => {
    const mark = markAt(event);
    under = mark?.datum ?? null;
    const { offsetX, offsetY } = point((event as { event?: unknown }).event);
    if (under) tooltip.show(under, offsetX, offsetY, drawn ?? "light");
    listen.onFocus?.(mark ? focusOf(mark) : null);
    listen.onPart?.(mark?.part ?? null);
  });
  chart.on("mouseout", () => {
    under = null;
    tooltip.hide();
    listen.onFocus?.(null);
    listen.onPart?.(null);
  });
  /** The theme of the last drawing: while it stays, only the data changes. */
  let drawn: Scene["theme"] | null = null;
  let entered = false;
  return {
    draw(scene, still) {
      marks = scene.marks;
      family = fontStack(scene.family, textsOf(scene));
      const { entry, change } = still ? { entry: 0, change: 0 } : scene.motion;
      // The first shapes take their time to enter; what joins later comes at the pace of the change.
      const enters = !entered && marks.some((m) => m.surface === "data");
      entered ||= enters;
      const moves = {
        animation: entry + change > 0,
        animationDuration: enters ? entry : change,
        animationDurationUpdate: change,
      };
      if (drawn === scene.theme) {
        chart.setOption({ ...moves, series: [{ id: SERIES, data: itemsOf(scene) }] } as never);
        return;
      }
      drawn = scene.theme;
      chart.setOption({
        ...moves,
        animationEasing: "cubicOut",
        animationEasingUpdate: "cubicOut",
        series: [seriesOf(scene, itemPayload)],
      } as never);
    },
    tell: (datum, x, y) => {
      if (datum) tooltip.show(datum, x, y, drawn ?? "light");
      else tooltip.hide();
    },
    resize: (width, height) => chart.resize({ width, height }),
    dispose: () => {
      tooltip.remove();
      chart.dispose();
    },
  };
};
