import type { Mark } from "./marks";

/** The corners of a polygon where it stands, turned. */
export function turnedPoints(m: Extract<Mark, { type: "polygon" }>): [number, number][] {
  const a = (m.rotate * Math.PI) / 180;
  return m.points.map(([x, y]) => [
    m.x + x * Math.cos(a) - y * Math.sin(a),
    m.y + x * Math.sin(a) + y * Math.cos(a),
  ]);
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
