import { CustomChart } from "echarts/charts";
import { TooltipComponent } from "echarts/components";
import * as echarts from "echarts/core";
import { SVGRenderer } from "echarts/renderers";
import { familyOf } from "@/core/scene/families";
import type { Datum, Fill, Mark, Scene } from "@/core/scene/marks";
import { drawRect, drawSector, type Pen } from "@/core/scene/outline";

const SERIES = "cavlo.marks";
const RAD = Math.PI / 180;

const CORNERS = { c0: 0, c1: 0, c2: 0, c3: 0 };
const SECTOR = { cx: 0, cy: 0, inner: 0, outer: 0, start: 0, end: 0, inset: 0, ...CORNERS };
const RECT = { x: 0, y: 0, width: 0, height: 0, ...CORNERS };

/** The outlines of the core drawn by ECharts: the same geometry as everywhere else, and its numbers animate. */
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

/** Path data drawn as it is, without being fitted to a box. */
const IconShape = echarts.graphic.extendShape({
  shape: { d: "" },
  buildPath(pen: unknown, { d }: { d: string }) {
    const made = echarts.graphic.makePath(d, {}, null as never, "cover") as unknown as { path?: unknown; buildPath: (p: unknown, s: object) => void };
    made.buildPath(pen, {});
  },
});

function paint(fill: Fill | undefined): unknown {
  if (fill === undefined || typeof fill === "string") return fill ?? "none";
  const colorStops = fill.stops.map((s) => ({ offset: s.at, color: s.color }));
  if (fill.type === "radial") return { type: "radial", x: fill.cx, y: fill.cy, r: fill.r, global: true, colorStops };
  return { type: "linear", x: fill.x0, y: fill.y0, x2: fill.x1, y2: fill.y1, colorStops };
}

/** The black of a shadow with its opacity. */
function shadowColour(color: string, opacity: number): string {
  const [r, g, b] = [1, 3, 5].map((i) => Number.parseInt(color.slice(i, i + 2), 16));
  return `rgba(${r},${g},${b},${opacity})`;
}

/** The shape that an entering box or sector begins as. */
function beginning(mark: Extract<Mark, { type: "sector" | "rect" }>): object | null {
  if (mark.type === "sector") return mark.grow === "sweep" ? { end: mark.start } : mark.grow === "middle" ? { outer: mark.inner } : null;
  switch (mark.grow) {
    case "left":
      return { width: 0 };
    case "right":
      return { x: mark.x + mark.width, width: 0 };
    case "top":
      return { height: 0 };
    case "bottom":
      return { y: mark.y + mark.height, height: 0 };
    default:
      return null;
  }
}

const boxShape = ({ radii, ...box }: NonNullable<Mark["clip"]>) => ({ ...box, c0: radii[0], c1: radii[1], c2: radii[2], c3: radii[3] });

function elementOf(mark: Mark, family: string): object {
  const { shadow } = mark;
  const style = {
    fill: paint(mark.fill),
    stroke: mark.stroke ?? "none",
    lineWidth: mark.stroke ? (mark.strokeWidth ?? 1) : 0,
    opacity: mark.opacity ?? 1,
    ...(shadow ? { shadowBlur: shadow.blur, shadowOffsetX: shadow.dx, shadowOffsetY: shadow.dy, shadowColor: shadowColour(shadow.color, shadow.opacity) } : {}),
  };
  // Each mark is one element under a name of its own: a change of data moves it, and marks without data let the pointer through.
  // The scene itself says what is emphasised, so the chart must not lift what is under the pointer over its label.
  const shared = { id: mark.id, name: mark.id, silent: mark.datum === undefined, emphasisDisabled: true, z2: mark.type === "text" ? 10 : 0 };
  const moves = { transition: ["shape", "style"] };
  switch (mark.type) {
    case "sector": {
      const { cx, cy, inner, outer, start, end, inset, corners } = mark;
      const shape = { cx, cy, inner, outer, start, end, inset, c0: corners[0], c1: corners[1], c2: corners[2], c3: corners[3] };
      const begins = beginning(mark);
      return { type: "cavloSector", ...shared, ...moves, shape, style, enterFrom: begins ? { shape: begins } : { style: { opacity: 0 } } };
    }
    case "rect": {
      const { x, y, width, height, radii } = mark;
      const begins = beginning(mark);
      return {
        type: "cavloRect",
        ...shared,
        ...moves,
        shape: boxShape({ x, y, width, height, radii }),
        style,
        enterFrom: begins ? { shape: begins } : { style: { opacity: 0 } },
        ...(mark.clip ? { clipPath: { type: "cavloRect", shape: boxShape(mark.clip) } } : {}),
      };
    }
    case "circle":
      return {
        type: "circle",
        ...shared,
        ...moves,
        shape: { cx: mark.cx, cy: mark.cy, r: mark.r },
        style,
        enterFrom: mark.grow ? { shape: { r: 0 } } : { style: { opacity: 0 } },
      };
    case "polygon":
      return { type: "polygon", ...shared, transition: ["rotation", "x", "y", "style"], x: mark.x, y: mark.y, rotation: -mark.rotate * RAD, shape: { points: mark.points }, style };
    case "line":
      return { type: "polyline", ...shared, shape: { points: mark.points }, style };
    case "icon": {
      const scale = mark.size / mark.box;
      return {
        type: "cavloIcon",
        ...shared,
        x: mark.x,
        y: mark.y,
        scaleX: scale,
        scaleY: scale,
        shape: { d: mark.d },
        style: { ...style, lineCap: "round", lineJoin: "round", lineWidth: style.lineWidth / scale, strokeNoScale: false },
      };
    }
    case "picture":
      return { type: "image", ...shared, style: { image: mark.href, x: mark.x, y: mark.y, width: mark.width, height: mark.height, opacity: mark.opacity ?? 1 } };
    case "text":
      return {
        type: "text",
        ...shared,
        x: mark.x,
        y: mark.y,
        style: {
          text: mark.text,
          fill: mark.fill,
          font: `${mark.weight} ${mark.size}px ${family}`,
          align: mark.align === "start" ? "left" : mark.align === "end" ? "right" : "center",
          verticalAlign: "middle",
          opacity: mark.opacity ?? 1,
        },
      };
  }
}

let registered = false;
function register(): void {
  if (registered) return;
  registered = true;
  echarts.use([CustomChart, TooltipComponent, SVGRenderer]);
  echarts.graphic.registerShape("cavloSector", SectorShape);
  echarts.graphic.registerShape("cavloRect", RectShape);
  echarts.graphic.registerShape("cavloIcon", IconShape);
  echarts.registerCustomSeries(SERIES, (params) => {
    const payload = params.itemPayload as { markAt: (index: number) => Mark | undefined; family: () => string };
    const mark = payload.markAt(params.dataIndex);
    return (mark ? elementOf(mark, payload.family()) : undefined) as never;
  });
}

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
  // A function passes through the option as it is; marks would be copied deeply at every change.
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
      const data = scene.marks.map((m, i) => ({ id: m.id, name: m.id, value: i }));
      const { entry, change } = still ? { entry: 0, change: 0 } : scene.motion;
      // What enters with the first drawing takes its time; what joins later comes at the pace of the change.
      const moves = { animation: entry + change > 0, animationDuration: drawn === null ? entry : change, animationDurationUpdate: change };
      if (drawn === scene.theme) {
        chart.setOption({ ...moves, series: [{ id: SERIES, data }] } as never);
        return;
      }
      drawn = scene.theme;
      const series = [{ id: SERIES, type: "custom", renderItem: SERIES, coordinateSystem: "none", itemPayload, data }];
      chart.setOption({ ...moves, animationEasing: "cubicOut", animationEasingUpdate: "cubicOut", tooltip: tooltipOption(scene.theme), series } as never);
    },
    resize: (width, height) => chart.resize({ width, height }),
    dispose: () => chart.dispose(),
  };
}
