import type { Fill, Mark, Stop } from "./marks";

/** The numbers of each type of mark that move; what is not named here is that of the new mark at once. */
const MOVES: Record<Mark["type"], readonly string[]> = {
  sector: ["cx", "cy", "inner", "outer", "start", "end", "inset"],
  rect: ["x", "y", "width", "height"],
  circle: ["cx", "cy", "r"],
  polygon: ["x", "y", "rotate"],
  line: [],
  icon: ["x", "y", "size"],
  picture: ["x", "y", "width", "height"],
  text: ["x", "y", "size"],
};
/** The four corners of a shape, which move too. */
const CORNERS = { sector: "corners", rect: "radii" } as const;

const number = (a: number, b: number, share: number) => a + (b - a) * share;

const HEX = /^#[0-9a-f]{6}$/i;
/** A colour on the way from one to another, channel by channel; the second where they are not both plain. */
function colourBetween(a: string, b: string, share: number): string {
  if (a === b || !HEX.test(a) || !HEX.test(b)) return b;
  const [from, to] = [a, b].map((text) => Number.parseInt(text.slice(1), 16));
  let mixed = 0;
  for (const shift of [16, 8, 0])
    mixed |= Math.round(number((from >> shift) & 255, (to >> shift) & 255, share)) << shift;
  return `#${mixed.toString(16).padStart(6, "0")}`;
}

const stopsBetween = (a: Stop[], b: Stop[], share: number): Stop[] =>
  b.map((stop, i) => ({
    at: number(a[i].at, stop.at, share),
    color: colourBetween(a[i].color, stop.color, share),
  }));

function fillBetween(a: Fill | undefined, b: Fill | undefined, share: number): Fill | undefined {
  if (typeof a === "string" && typeof b === "string") return colourBetween(a, b, share);
  if (typeof a !== "object" || typeof b !== "object") return b;
  if (a.type !== b.type || a.stops.length !== b.stops.length) return b;
  const stops = stopsBetween(a.stops, b.stops, share);
  if (a.type === "radial" && b.type === "radial")
    return {
      ...b,
      cx: number(a.cx, b.cx, share),
      cy: number(a.cy, b.cy, share),
      r: number(a.r, b.r, share),
      stops,
    };
  return { ...b, stops };
}

/** What an entering mark begins as: a shape without its length, or the mark unseen. */
export function beginning(mark: Mark): Mark {
  if (mark.type === "sector" && mark.grow === "sweep") return { ...mark, end: mark.start };
  if (mark.type === "sector" && mark.grow === "middle") return { ...mark, outer: mark.inner };
  if (mark.type === "circle" && mark.grow) return { ...mark, r: 0 };
  if (mark.type === "rect")
    switch (mark.grow) {
      case "left":
        return { ...mark, width: 0 };
      case "right":
        return { ...mark, x: mark.x + mark.width, width: 0 };
      case "top":
        return { ...mark, height: 0 };
      case "bottom":
        return { ...mark, y: mark.y + mark.height, height: 0 };
    }
  return { ...mark, opacity: 0 };
}

/**
 * A mark on the way to its next state, `share` from 0 to 1: lengths, angles, places and colours move, what
 * cannot be in between is as it will be. A mark that was of another type enters.
 */
export function markBetween(before: Mark | undefined, after: Mark, share: number): Mark {
  const from = before?.type === after.type ? before : beginning(after);
  if (share >= 1) return after;
  const mark: Record<string, unknown> = { ...after };
  const [a, b] = [from, after] as unknown as Record<string, number>[];
  for (const key of MOVES[after.type]) mark[key] = number(a[key], b[key], share);
  if (after.type === "sector" || after.type === "rect") {
    const key = CORNERS[after.type];
    const [start, end] = [from, after] as unknown as Record<string, number[]>[];
    mark[key] = end[key].map((corner, i) => number(start[key][i], corner, share));
  }
  mark.fill = fillBetween(from.fill, after.fill, share);
  if (from.stroke && after.stroke) mark.stroke = colourBetween(from.stroke, after.stroke, share);
  mark.opacity = number(from.opacity ?? 1, after.opacity ?? 1, share);
  return mark as unknown as Mark;
}
