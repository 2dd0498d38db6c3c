import type { Mark } from "./marks";

/** The corners of a polygon where it stands, turned. */
export function turnedPoints(m: Extract<Mark, { type: "polygon" }>): [number, number][] {
  const a = (m.rotate * Math.PI) / 180;
  return m.points.map(([x, y]) => [
    m.x + x * Math.cos(a) - y * Math.sin(a),
    m.y + x * Math.sin(a) + y * Math.cos(a),
  ]);
}

/** The edges that a filled mark does not leave; those of a sector are its whole circle's. */
export function boundsOf(m: Mark): { left: number; right: number; top: number; bottom: number } {
  const around = (x: number, y: number, r: number) => ({
    left: x - r,
    right: x + r,
    top: y - r,
    bottom: y + r,
  });
  if (m.type === "rect") return { left: m.x, right: m.x + m.width, top: m.y, bottom: m.y + m.height };
  if (m.type === "circle") return around(m.cx, m.cy, m.r);
  if (m.type === "sector") return around(m.cx, m.cy, m.outer);
  if (m.type !== "polygon") return around(0, 0, Number.POSITIVE_INFINITY);
  const points = turnedPoints(m);
  const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])];
  return {
    left: Math.min(...xs),
    right: Math.max(...xs),
    top: Math.min(...ys),
    bottom: Math.max(...ys),
  };
}

/** Whether a point lies within a filled mark; rounded corners are taken as filled. */
export function covers(m: Mark, x: number, y: number): boolean {
  if (m.fill === undefined) return false;
  if (m.type === "rect") return x > m.x && x < m.x + m.width && y > m.y && y < m.y + m.height;
  if (m.type === "circle") return Math.hypot(x - m.cx, y - m.cy) < m.r;
  if (m.type === "sector") {
    const distance = Math.hypot(x - m.cx, y - m.cy);
    if (distance <= m.inner || distance >= m.outer || m.end <= m.start) return false;
    const turn = ((((Math.atan2(x - m.cx, -(y - m.cy)) * 180) / Math.PI - m.start) % 360) + 360) % 360;
    return turn < m.end - m.start;
  }
  if (m.type !== "polygon") return false;
  const points = turnedPoints(m);
  let inside = false;
  for (let i = 0, j = points.length - 1; i < points.length; j = i++) {
    const [a, b] = [points[i], points[j]];
    if (a[1] > y !== b[1] > y && x < ((b[0] - a[0]) * (y - a[1])) / (b[1] - a[1]) + a[0]) inside = !inside;
  }
  return inside;
}
