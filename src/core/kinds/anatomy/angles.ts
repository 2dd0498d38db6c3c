const RAD = Math.PI / 180;

/** The point at an angle (degrees, 0 at twelve o'clock, clockwise) and a distance from a centre. */
export function polar(cx: number, cy: number, angle: number, distance: number): { x: number; y: number } {
  return { x: cx + distance * Math.sin(angle * RAD), y: cy - distance * Math.cos(angle * RAD) };
}

/** How far an arc of radius 1, together with its centre, reaches to each side. */
export function arcExtent(
  start: number,
  sweep: number,
): { left: number; right: number; top: number; bottom: number } {
  const extent = { left: 0, right: 0, top: 0, bottom: 0 };
  const reach = (angle: number) => {
    const { x, y } = polar(0, 0, angle, 1);
    extent.left = Math.max(extent.left, -x);
    extent.right = Math.max(extent.right, x);
    extent.top = Math.max(extent.top, -y);
    extent.bottom = Math.max(extent.bottom, y);
  };
  reach(start);
  reach(start + sweep);
  for (let quarter = Math.ceil(start / 90) * 90; quarter <= start + sweep; quarter += 90) reach(quarter);
  return extent;
}

/** Where the reading of an arc that is about half a circle stands: up (-1) or down (1) in it, else level. */
export function liftOf(start: number, sweep: number): -1 | 0 | 1 {
  const { top, bottom } = arcExtent(start, sweep);
  if (bottom < 0.35) return -1;
  return top < 0.35 ? 1 : 0;
}

/** The corners and the middles of the sides of a box of half width and height 1. */
const RIM = [-1, 0, 1].flatMap((x) => [-1, 0, 1].map((y) => [x, y])).filter(([x, y]) => x !== 0 || y !== 0);

/** Whether a box of text at a distance from the centre, in the middle of a sector, stays within it. */
export function boxInSector(
  { start, end, inner, outer }: { start: number; end: number; inner: number; outer: number },
  distance: number,
  box: { width: number; height: number },
): boolean {
  const middle = (start + end) / 2;
  const centre = polar(0, 0, middle, distance);
  const half = (end - start) / 2;
  return RIM.every(([dx, dy]) => {
    const [x, y] = [centre.x + (dx * box.width) / 2, centre.y + (dy * box.height) / 2];
    const far = Math.hypot(x, y);
    const turn = (Math.atan2(x, -y) * 180) / Math.PI - middle;
    const off = Math.abs(((((turn + 180) % 360) + 360) % 360) - 180);
    return far > inner && far < outer && off < half;
  });
}
