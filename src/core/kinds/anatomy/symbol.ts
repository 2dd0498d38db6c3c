import type { Rule } from "../../project/schema";
import type { Mark } from "../../scene/marks";

/** A rule's symbol, drawn so that it needs no font: within a circle of radius `r` around (x, y). */
export function symbolMark(
  id: string,
  part: string,
  symbol: Rule["symbol"],
  { x, y, r, fill }: { x: number; y: number; r: number; fill: string },
): Mark | null {
  const polygon = (points: [number, number][], rotate = 0): Mark => ({
    type: "polygon",
    id,
    part,
    x,
    y,
    rotate,
    points: points.map(([a, b]) => [a * r, b * r]),
    fill,
  });
  const triangle: [number, number][] = [
    [0, -1],
    [0.92, 0.65],
    [-0.92, 0.65],
  ];
  const square: [number, number][] = [
    [-0.8, -0.8],
    [0.8, -0.8],
    [0.8, 0.8],
    [-0.8, 0.8],
  ];
  const arm = 0.3;
  switch (symbol) {
    case "none":
      return null;
    case "circle":
      return { type: "circle", id, part, cx: x, cy: y, r: r * 0.9, fill };
    case "triangle":
      return polygon(triangle);
    case "triangle down":
      return polygon(triangle, 180);
    case "square":
      return polygon(square);
    case "diamond":
      return polygon(square, 45);
    case "cross":
      return polygon(
        [
          [-arm, -1],
          [arm, -1],
          [arm, -arm],
          [1, -arm],
          [1, arm],
          [arm, arm],
          [arm, 1],
          [-arm, 1],
          [-arm, arm],
          [-1, arm],
          [-1, -arm],
          [-arm, -arm],
        ],
        45,
      );
  }
}
