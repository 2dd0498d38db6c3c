import * as echarts from "echarts/core";
import { familyOf } from "@/core/scene/families";
import type { Datum, Mark, Scene } from "@/core/scene/marks";
import { itemsOf, register, SERIES, seriesOf } from "./echarts-marks";

/** A picture in a page element that follows its scene: marks move to their new places when the data changes. */
export interface LivePicture {
  /** Draws the next state; `still` without any movement. */
  draw(scene: Scene, still: boolean): void;
  resize(width: number, height: number): void;
  dispose(): void;
}

/** Beside the pointer, away from the middle of the picture, where the reading stands, but within the window. */
function outward(picture: DOMRect, [x, y]: number[], [width, height]: number[]): [number, number] {
  const gap = 14;
  const within = (wanted: number, size: number, origin: number, end: number) => Math.max(8 - origin, Math.min(wanted, end - origin - size - 8));
  const left = x < picture.width / 2 ? x - width - gap : x + gap;
  const top = y < picture.height / 2 ? y - height - gap : y + gap;
  return [within(left, width, picture.left, window.innerWidth), within(top, height, picture.top, window.innerHeight)];
}

/** What a datum says in the tooltip, as page elements: names from data are never read as markup. */
function tooltipOf(datum: Datum): HTMLElement {
  const box = document.createElement("div");
  const title = box.appendChild(document.createElement("div"));
  title.textContent = datum.title;
  title.style.fontWeight = "600";
  for (const { label, value } of datum.lines) {
    const line = box.appendChild(document.createElement("div"));
    line.style.cssText = "display:flex;gap:16px;justify-content:space-between";
    line.appendChild(document.createElement("span")).textContent = label;
    const written = line.appendChild(document.createElement("span"));
    written.textContent = value;
    written.style.fontWeight = "600";
  }
  return box;
}

/**
 * Starts a live picture. `onFocus` hears the key of the row under the pointer (null when none), `onPart` the part of the
 * anatomy, `onPick` a click on a row.
 */
export function startPicture(
  element: HTMLElement,
  size: { width: number; height: number },
  listen: { onFocus?: (key: string | null) => void; onPart?: (part: string | null) => void; onPick?: (key: string) => void },
): LivePicture {
  register();
  const chart = echarts.init(element, null, { renderer: "svg", ...size });
  let marks: Mark[] = [];
  let family = familyOf("").css;
  const itemPayload = { markAt: (index: number) => marks[index], family: () => family };
  const markAt = (event: unknown) => marks[(event as { dataIndex: number }).dataIndex];
  chart.on("mouseover", (event) => {
    const mark = markAt(event);
    listen.onFocus?.(mark?.datum?.key ?? null);
    listen.onPart?.(mark?.part ?? null);
  });
  chart.on("mouseout", () => {
    listen.onFocus?.(null);
    listen.onPart?.(null);
  });
  chart.on("click", (event) => {
    const key = markAt(event)?.datum?.key;
    if (key !== undefined) listen.onPick?.(key);
  });
  /** The theme of the last drawing: while it stays, only the data changes. */
  let drawn: Scene["theme"] | null = null;
  let entered = false;
  const tooltipOption = (theme: Scene["theme"]) => ({
    trigger: "item",
    // The tooltip may reach past a small picture.
    appendTo: "body",
    confine: false,
    position: (point: number[], _params: unknown, _element: unknown, _box: unknown, size: { contentSize: number[] }) =>
      outward(element.getBoundingClientRect(), point, size.contentSize),
    transitionDuration: 0,
    backgroundColor: theme === "night" ? "#22302f" : "#fffdf8",
    borderColor: theme === "night" ? "#3a4a4b" : "#dcd6c8",
    padding: [8, 10],
    textStyle: { color: theme === "night" ? "#e9e4d8" : "#1c2b2d", fontFamily: familyOf("").css, fontSize: 12.5 },
    formatter: (event: unknown) => {
      const datum = markAt(event)?.datum;
      return datum ? tooltipOf(datum) : "";
    },
  });
  return {
    draw(scene, still) {
      marks = scene.marks;
      family = familyOf(scene.family).css;
      const { entry, change } = still ? { entry: 0, change: 0 } : scene.motion;
      // The first shapes take their time to enter; what joins later comes at the pace of the change.
      const enters = !entered && marks.some((m) => m.surface === "data");
      entered ||= enters;
      const moves = { animation: entry + change > 0, animationDuration: enters ? entry : change, animationDurationUpdate: change };
      if (drawn === scene.theme) {
        chart.setOption({ ...moves, series: [{ id: SERIES, data: itemsOf(scene) }] } as never);
        return;
      }
      drawn = scene.theme;
      chart.setOption({
        ...moves,
        animationEasing: "cubicOut",
        animationEasingUpdate: "cubicOut",
        tooltip: tooltipOption(scene.theme),
        series: [seriesOf(scene, itemPayload)],
      } as never);
    },
    resize: (width, height) => chart.resize({ width, height }),
    dispose: () => chart.dispose(),
  };
}
