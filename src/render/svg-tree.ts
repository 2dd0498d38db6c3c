import { fontStack } from "@/core/scene/families";
import {
  categoryOf,
  type Fill,
  type Letter,
  type Mark,
  type Scene,
  type Shadow,
  type Text,
  textsOf,
} from "@/core/scene/marks";
import { drawRect, drawSector, SvgPath } from "@/core/scene/outline";
import { MarkNames } from "./svg-names";

/** An SVG element as plain data; React and the SVG text writer both take it from here. */
export interface SvgNode {
  tag:
    | "svg"
    | "g"
    | "path"
    | "circle"
    | "text"
    | "image"
    | "defs"
    | "linearGradient"
    | "radialGradient"
    | "stop"
    | "filter"
    | "feDropShadow"
    | "clipPath"
    | "style"
    | "title"
    | "desc";
  attributes: Record<string, string | number>;
  children: SvgNode[];
  text?: string;
}

/** How far below the middle of its capitals a text's base line lies, in sizes. */
const BASELINE = 0.35;
const round = (n: number) => Math.round(n * 100) / 100 + 0;

const node = (tag: SvgNode["tag"], attributes: SvgNode["attributes"], children: SvgNode[] = []): SvgNode => ({
  tag,
  attributes,
  children,
});

/** A line of text with its letters one by one, each turned around its own middle. */
function bentText({ size, weight }: Text, letters: Letter[], look: SvgNode["attributes"]): SvgNode {
  const drawn = letters.map(({ text, x, y, turn }) => ({
    ...node("text", {
      y: round(size * BASELINE),
      transform: `translate(${round(x)} ${round(y)}) rotate(${round(turn)})`,
    }),
    text,
  }));
  return node(
    "g",
    { "font-size": round(size), "font-weight": weight, "text-anchor": "middle", ...look },
    drawn,
  );
}

/** Turns marks into elements; ramps and shadows become definitions with ids that begin with `prefix`. */
class TreeBuilder {
  readonly defs: SvgNode[] = [];
  private readonly known = new Map<string, string>();
  constructor(
    private readonly prefix: string,
    private readonly names: MarkNames | null,
    private readonly indexed: boolean,
  ) {}

  /** The address of a definition; the same one is written once. */
  private defined(key: string, make: (id: string) => SvgNode): string {
    let id = this.known.get(key);
    if (id === undefined) {
      id = `${this.prefix}${this.defs.length}`;
      this.known.set(key, id);
      this.defs.push(make(id));
    }
    return `url(#${id})`;
  }

  private paint(fill: Fill | undefined): string {
    if (fill === undefined) return "none";
    if (typeof fill === "string") return fill;
    const stops = fill.stops.map((s) => node("stop", { offset: round(s.at), "stop-color": s.color }));
    return this.defined(JSON.stringify(fill), (id) =>
      fill.type === "linear"
        ? node("linearGradient", { id, x1: fill.x0, y1: fill.y0, x2: fill.x1, y2: fill.y1 }, stops)
        : node(
            "radialGradient",
            { id, gradientUnits: "userSpaceOnUse", cx: round(fill.cx), cy: round(fill.cy), r: round(fill.r) },
            stops,
          ),
    );
  }

  private filter(shadow: Shadow): string {
    const { blur, dx, dy, color, opacity } = shadow;
    return this.defined(JSON.stringify(shadow), (id) =>
      node("filter", { id, x: "-30%", y: "-30%", width: "160%", height: "160%" }, [
        node("feDropShadow", {
          dx: round(dx),
          dy: round(dy),
          stdDeviation: round(blur / 2),
          "flood-color": color,
          "flood-opacity": opacity,
        }),
      ]),
    );
  }

  private clip(box: NonNullable<Mark["clip"]>): string {
    return this.defined(JSON.stringify(box), (id) => {
      const pen = new SvgPath();
      drawRect(pen, box);
      return node("clipPath", { id }, [node("path", { d: pen.toString() })]);
    });
  }

  /** All marks; those that follow each other with the same shadow throw it together. */
  marks(marks: Mark[]): SvgNode[] {
    const out: SvgNode[] = [];
    let before = "";
    let into = out;
    for (const [at, mark] of marks.entries()) {
      const shadow = mark.shadow ? JSON.stringify(mark.shadow) : "";
      if (shadow !== before) {
        into = out;
        if (mark.shadow) {
          const group = node("g", { filter: this.filter(mark.shadow) });
          out.push(group);
          into = group.children;
        }
        before = shadow;
      }
      const drawn = this.mark(mark, at);
      into.push(mark.clip ? node("g", { "clip-path": this.clip(mark.clip) }, [drawn]) : drawn);
    }
    return out;
  }

  private mark(mark: Mark, at: number): SvgNode {
    const drawn = this.shape(mark);
    // Marks that say nothing let the pointer through.
    if (this.indexed && categoryOf(mark)) drawn.attributes["data-mark"] = at;
    else if (this.indexed) drawn.attributes["pointer-events"] = "none";
    if (this.names) drawn.attributes = { ...this.names.of(mark), ...drawn.attributes };
    return drawn;
  }

  private shape(mark: Mark): SvgNode {
    const look: SvgNode["attributes"] = { fill: this.paint(mark.fill) };
    if (mark.stroke)
      Object.assign(look, {
        stroke: mark.stroke,
        "stroke-width": mark.strokeWidth ?? 1,
        "stroke-linejoin": "round",
      });
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
        return node("path", {
          d,
          transform: `translate(${round(mark.x)} ${round(mark.y)}) rotate(${round(mark.rotate)})`,
          ...look,
        });
      }
      case "line":
        return node("path", {
          d: `M${mark.points.map(([x, y]) => `${round(x)} ${round(y)}`).join("L")}`,
          ...look,
        });
      case "icon": {
        const scale = mark.size / mark.box;
        const line: SvgNode["attributes"] = mark.stroke
          ? { "stroke-linecap": "round", "stroke-width": round((mark.strokeWidth ?? 1) / scale) }
          : {};
        return node("path", {
          d: mark.d,
          transform: `translate(${round(mark.x)} ${round(mark.y)}) scale(${Math.round(scale * 1e4) / 1e4})`,
          ...look,
          ...line,
        });
      }
      case "picture":
        return node("image", {
          x: round(mark.x),
          y: round(mark.y),
          width: round(mark.width),
          height: round(mark.height),
          href: mark.href,
          ...(look.opacity ? { opacity: look.opacity } : {}),
        });
      case "text": {
        if (mark.letters) return bentText(mark, mark.letters, look);
        const attributes = {
          x: round(mark.x),
          y: round(mark.y + mark.size * BASELINE),
          "font-size": round(mark.size),
          "font-weight": mark.weight,
          "text-anchor": mark.align,
          ...look,
        };
        return { ...node("text", attributes), text: mark.text };
      }
    }
  }
}

/** How a scene is written as SVG. */
export interface SvgOptions {
  /** What the ids of its ramps and shadows begin with. */
  prefix?: string;
  /** Its title; in a file that leaves, marks have names too: ids, classes and the values they show. */
  title?: string;
  /** Whether marks carry their number, for who answers the pointer. */
  indexed?: boolean;
  /** Rules of style that travel with it: the fonts it is written in. */
  style?: string;
}

/** The scene as an SVG tree, with its description as its accessible text. */
export function sceneTree(
  scene: Scene,
  { prefix = "ramp", title, style, indexed = false }: SvgOptions = {},
): SvgNode {
  const builder = new TreeBuilder(prefix, title === undefined ? null : new MarkNames(prefix), indexed);
  const { width, height } = scene;
  const children: SvgNode[] = [];
  if (scene.background || (scene.border && scene.border.color !== "none")) {
    const pen = new SvgPath();
    const r = scene.border?.radius ?? 0;
    const inset = scene.border && scene.border.color !== "none" ? 0.5 : 0;
    drawRect(pen, {
      x: inset,
      y: inset,
      width: width - 2 * inset,
      height: height - 2 * inset,
      radii: [r, r, r, r],
    });
    children.push(
      node("path", {
        d: pen.toString(),
        fill: scene.background ?? "none",
        ...(inset ? { stroke: scene.border?.color ?? "none" } : {}),
      }),
    );
  }
  children.push(...builder.marks(scene.marks));
  const said = (tag: "title" | "desc" | "style", text: string | undefined): SvgNode[] =>
    text ? [{ ...node(tag, {}), text }] : [];
  return node(
    "svg",
    {
      xmlns: "http://www.w3.org/2000/svg",
      width,
      height,
      viewBox: `0 0 ${width} ${height}`,
      // Alive in a page, what stands around it says what it shows.
      ...(indexed ? {} : { role: "img" }),
      "font-family": fontStack(scene.family, textsOf(scene)),
      "font-variant": "normal",
    },
    [
      ...said("title", title),
      ...said("desc", indexed ? undefined : scene.description),
      ...said("style", style),
      ...(builder.defs.length ? [node("defs", {}, builder.defs)] : []),
      ...children,
    ],
  );
}
