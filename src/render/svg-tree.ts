import type { Fill, Mark, Scene } from "@/core/scene/marks";
import { drawRect, drawSector, SvgPath } from "@/core/scene/outline";

/** An SVG element as plain data; React and the SVG text writer both take it from here. */
export interface SvgNode {
  tag: "svg" | "g" | "rect" | "path" | "circle" | "text" | "defs" | "linearGradient" | "stop" | "title" | "desc";
  attributes: Record<string, string | number>;
  children: SvgNode[];
  text?: string;
}

const round = (n: number) => Math.round(n * 100) / 100 + 0;
export const FONT_FAMILY = "Archivo Variable, Archivo, sans-serif";

const node = (tag: SvgNode["tag"], attributes: SvgNode["attributes"], children: SvgNode[] = []): SvgNode => ({ tag, attributes, children });

/** Turns marks into elements; ramps become gradient definitions with ids that begin with `prefix`. */
class TreeBuilder {
  readonly defs: SvgNode[] = [];
  constructor(private readonly prefix: string) {}

  private paint(fill: Fill | undefined): string {
    if (fill === undefined) return "none";
    if (typeof fill === "string") return fill;
    const id = `${this.prefix}${this.defs.length}`;
    const stops = fill.stops.map((s) => node("stop", { offset: s.at, "stop-color": s.color }));
    this.defs.push(node("linearGradient", { id, x1: fill.x0, y1: fill.y0, x2: fill.x1, y2: fill.y1 }, stops));
    return `url(#${id})`;
  }

  mark(mark: Mark): SvgNode {
    const look: SvgNode["attributes"] = { fill: this.paint(mark.fill) };
    if (mark.stroke) Object.assign(look, { stroke: mark.stroke, "stroke-width": mark.strokeWidth ?? 1, "stroke-linejoin": "round" });
    if (mark.opacity !== undefined && mark.opacity < 1) look.opacity = mark.opacity;
    switch (mark.type) {
      case "sector":
      case "rect": {
        const pen = new SvgPath();
        if (mark.type === "sector") drawSector(pen, mark);
        else drawRect(pen, mark);
        return node("path", { d: pen.toString(), "fill-rule": "evenodd", ...look });
      }
      case "circle":
        return node("circle", { cx: round(mark.cx), cy: round(mark.cy), r: round(mark.r), ...look });
      case "polygon": {
        const d = `M${mark.points.map(([x, y]) => `${round(x)} ${round(y)}`).join("L")}Z`;
        return node("path", { d, transform: `translate(${round(mark.x)} ${round(mark.y)}) rotate(${round(mark.rotate)})`, ...look });
      }
      case "line":
        return node("path", { d: `M${mark.points.map(([x, y]) => `${round(x)} ${round(y)}`).join("L")}`, ...look });
      case "text": {
        const attributes = { x: round(mark.x), y: round(mark.y), "font-size": mark.size, "font-weight": mark.weight, "text-anchor": mark.align, dy: "0.35em", ...look };
        return { ...node("text", attributes), text: mark.text };
      }
    }
  }
}

/** The scene as an SVG tree, with its description as its accessible text. */
export function sceneTree(scene: Scene, prefix = "ramp"): SvgNode {
  const builder = new TreeBuilder(prefix);
  const { width, height } = scene;
  const children: SvgNode[] = [];
  if (scene.background || (scene.border && scene.border.color !== "none")) {
    const pen = new SvgPath();
    const r = scene.border?.radius ?? 0;
    const inset = scene.border && scene.border.color !== "none" ? 0.5 : 0;
    drawRect(pen, { x: inset, y: inset, width: width - 2 * inset, height: height - 2 * inset, radii: [r, r, r, r] });
    children.push(node("path", { d: pen.toString(), fill: scene.background ?? "none", ...(inset ? { stroke: scene.border?.color ?? "none" } : {}) }));
  }
  children.push(...scene.marks.map((m) => builder.mark(m)));
  const description: SvgNode = { ...node("desc", {}), text: scene.description };
  return node("svg", { xmlns: "http://www.w3.org/2000/svg", width, height, viewBox: `0 0 ${width} ${height}`, role: "img", "font-family": FONT_FAMILY }, [
    description,
    ...(builder.defs.length ? [node("defs", {}, builder.defs)] : []),
    ...children,
  ]);
}
