import type { Fill, Mark } from "@/core/scene/marks";

const RAD = Math.PI / 180;

function paint(fill: Fill | undefined): unknown {
  if (fill === undefined || typeof fill === "string") return fill ?? "none";
  const colorStops = fill.stops.map((s) => ({ offset: s.at, color: s.color }));
  if (fill.type === "radial")
    return { type: "radial", x: fill.cx, y: fill.cy, r: fill.r, global: true, colorStops };
  return { type: "linear", x: fill.x0, y: fill.y0, x2: fill.x1, y2: fill.y1, colorStops };
}

/** The black of a shadow with its opacity. */
function shadowColour(color: string, opacity: number): string {
  const [r, g, b] = [1, 3, 5].map((i) => Number.parseInt(color.slice(i, i + 2), 16));
  return `rgba(${r},${g},${b},${opacity})`;
}

/** The shape that an entering box or sector begins as. */
function beginning(mark: Extract<Mark, { type: "sector" | "rect" }>): object | null {
  if (mark.type === "sector")
    return mark.grow === "sweep"
      ? { end: mark.start }
      : mark.grow === "middle"
        ? { outer: mark.inner }
        : null;
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

const boxShape = ({ radii, ...box }: NonNullable<Mark["clip"]>) => ({
  ...box,
  c0: radii[0],
  c1: radii[1],
  c2: radii[2],
  c3: radii[3],
});

/**
 * A mark as an element of a custom series of Apache ECharts: plain data, in which sectors and
 * boxes are shapes
 * that have to be made known to it by their names.
 */
export function elementOf(mark: Mark, family: string): Record<string, unknown> {
  const { shadow } = mark;
  const style = {
    fill: paint(mark.fill),
    stroke: mark.stroke ?? "none",
    lineWidth: mark.stroke ? (mark.strokeWidth ?? 1) : 0,
    opacity: mark.opacity ?? 1,
    ...(shadow
      ? {
          shadowBlur: shadow.blur,
          shadowOffsetX: shadow.dx,
          shadowOffsetY: shadow.dy,
          shadowColor: shadowColour(shadow.color, shadow.opacity),
        }
      : {}),
  };
  // Each mark is one element under a name of its own: a change of data moves it, and marks without data let
  // the pointer through. The scene itself says what is emphasised, so the chart must not lift what is under
  // the pointer over its label.
  const shared = {
    id: mark.id,
    name: mark.id,
    silent: mark.datum === undefined,
    emphasisDisabled: true,
    z2: mark.type === "text" ? 10 : 0,
    // Without a cut the one of the last drawing goes.
    clipPath: mark.clip ? { type: "cavloRect", shape: boxShape(mark.clip) } : (false as const),
  };
  const moves = { transition: ["shape", "style"] };
  switch (mark.type) {
    case "sector": {
      const { cx, cy, inner, outer, start, end, inset, corners } = mark;
      const shape = {
        cx,
        cy,
        inner,
        outer,
        start,
        end,
        inset,
        c0: corners[0],
        c1: corners[1],
        c2: corners[2],
        c3: corners[3],
      };
      const begins = beginning(mark);
      return {
        type: "cavloSector",
        ...shared,
        ...moves,
        shape,
        style,
        enterFrom: begins ? { shape: begins } : { style: { opacity: 0 } },
      };
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
      return {
        type: "polygon",
        ...shared,
        transition: ["rotation", "x", "y", "style"],
        x: mark.x,
        y: mark.y,
        rotation: -mark.rotate * RAD,
        shape: { points: mark.points },
        style,
      };
    case "line":
      return { type: "polyline", ...shared, shape: { points: mark.points }, style };
    case "icon": {
      // Moves to the corners of the icon's box make it the box that is fitted, whatever the outlines
      // cover of it.
      const pathData = `M0 0M${mark.box} ${mark.box}${mark.d}`;
      const scale = mark.size / mark.box;
      return {
        type: "path",
        ...shared,
        // An outline is fitted once, when it is made: its place and its size are told apart from it.
        transition: ["x", "y", "scaleX", "scaleY", "style"],
        x: mark.x,
        y: mark.y,
        scaleX: scale,
        scaleY: scale,
        // A cut is moved and scaled with what it cuts.
        ...(mark.clip
          ? {
              clipPath: {
                type: "cavloRect",
                shape: boxShape({
                  ...mark.clip,
                  x: (mark.clip.x - mark.x) / scale,
                  y: (mark.clip.y - mark.y) / scale,
                  width: mark.clip.width / scale,
                  height: mark.clip.height / scale,
                }),
              },
            }
          : {}),
        shape: { pathData, x: 0, y: 0, width: mark.box, height: mark.box, layout: "cover" },
        style: {
          ...style,
          ...(mark.stroke ? { lineWidth: (mark.strokeWidth ?? 1) / scale } : {}),
          lineCap: "round",
          lineJoin: "round",
        },
      };
    }
    case "picture":
      return {
        type: "image",
        ...shared,
        style: {
          image: mark.href,
          x: mark.x,
          y: mark.y,
          width: mark.width,
          height: mark.height,
          opacity: mark.opacity ?? 1,
        },
      };
    case "text": {
      const { x, y, text, letters, fill, opacity = 1 } = mark;
      const font = `${mark.weight} ${mark.size}px ${family}`;
      const letter = { fill, font, align: "center", verticalAlign: "middle", opacity };
      if (letters)
        return {
          type: "group",
          ...shared,
          children: letters.map((one, i) => ({
            type: "text",
            name: `${i}`,
            silent: true,
            z2: shared.z2,
            x: one.x,
            y: one.y,
            rotation: -one.turn * RAD,
            style: { ...letter, text: one.text },
          })),
        };
      const align = mark.align === "start" ? "left" : mark.align === "end" ? "right" : "center";
      return { type: "text", ...shared, x, y, style: { ...letter, align, text } };
    }
  }
}
