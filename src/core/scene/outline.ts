import type { Rect, Sector } from "./marks";

/** Where an outline is written to: a canvas context, a path proxy and `SvgPath` all fit. */
export interface Pen {
  moveTo(x: number, y: number): void;
  lineTo(x: number, y: number): void;
  arc(cx: number, cy: number, r: number, startAngle: number, endAngle: number, anticlockwise?: boolean): void;
  closePath(): void;
}

const RAD = Math.PI / 180;
const TINY = 1e-9;
/** Arcs shorter than this, in radians, are not drawn. */
const NO_ARC = 1e-6;

/**
 * Corner radii that fit: the outer ones inside the wedge of half-angle `half`, the inner ones outside the
 * hole.
 */
function cornerLimits(
  inner: number,
  outer: number,
  half: number,
  inset: number,
): { outer: number; inner: number } {
  const thickness = (outer - inner) / 2;
  const s = Math.sin(Math.min(half, Math.PI / 2));
  return {
    outer: Math.max(0, Math.min(thickness, (outer * s - inset) / (1 + s))),
    inner: Math.max(0, Math.min(thickness, s < 1 ? (inner * s - inset) / (1 - s) : thickness)),
  };
}

type SectorShape = Pick<Sector, "cx" | "cy" | "inner" | "outer" | "start" | "end" | "inset" | "corners">;

/** The inset that a sector really gets: never so wide that a visible sector vanishes. */
function sectorInset(shape: SectorShape): number {
  const half = ((shape.end - shape.start) * RAD) / 2;
  return Math.min(shape.inset, 0.35 * shape.outer * Math.sin(Math.min(half, Math.PI / 2)));
}

/** Writes a ring without ends: two half turns outside, and two back inside. */
function drawWholeRing(pen: Pen, { cx, cy, outer }: SectorShape, inner: number, from: number): void {
  const turn = (r: number, sign: 1 | -1) => {
    pen.moveTo(cx + r * Math.cos(from), cy + r * Math.sin(from));
    pen.arc(cx, cy, r, from, from + sign * Math.PI, sign < 0);
    pen.arc(cx, cy, r, from + sign * Math.PI, from + sign * 2 * Math.PI, sign < 0);
    pen.closePath();
  };
  turn(outer, 1);
  if (inner > 0) turn(inner, -1);
}

/**
 * Writes a sector with parallel gaps and rounded corners. Each corner is a circle tangent to the arc
 * and to the straight edge, so that a corner of half the thickness makes a round cap that ends where
 * the sector ends.
 */
export function drawSector(pen: Pen, shape: SectorShape): void {
  const { cx, cy, outer } = shape;
  const inner = Math.max(0, Math.min(shape.inner, outer));
  const span = shape.end - shape.start;
  if (!(span > 0) || !(outer > 0)) return;
  const from = (shape.start - 90) * RAD;
  if (span >= 360 - 1e-6) {
    drawWholeRing(pen, shape, inner, from);
    return;
  }
  const to = (shape.end - 90) * RAD;
  const half = (span * RAD) / 2;
  const g = sectorInset(shape);
  const limits = cornerLimits(inner, outer, half, g);
  const [c0, c1, c2, c3] = shape.corners.map((c, i) =>
    Math.max(0, Math.min(c, i < 2 ? limits.outer : limits.inner)),
  );
  // A point `along` an edge's direction, moved by the inset into the sector; side 1 is the start edge, -1 the
  // end edge.
  const edge = (angle: number, side: 1 | -1, along: number, across: number): [number, number] => [
    cx + along * Math.cos(angle) - side * across * Math.sin(angle),
    cy + along * Math.sin(angle) + side * across * Math.cos(angle),
  ];
  const along = (r: number, across: number) => Math.sqrt(Math.max(0, r * r - across * across));
  const corner = (angle: number, side: 1 | -1, c: number, rim: "outer" | "inner") => {
    const r = rim === "outer" ? outer - c : inner + c;
    const a = along(r, g + c);
    const centre = edge(angle, side, a, g + c);
    return {
      centre,
      onEdge: edge(angle, side, a, g),
      rimAngle: angle + side * Math.asin(Math.min(1, (g + c) / Math.max(r, TINY))),
      a,
    };
  };
  const start0 = corner(from, 1, c0, "outer");
  const end0 = corner(to, -1, c1, "outer");
  pen.moveTo(...start0.onEdge);
  if (c0 > TINY) pen.arc(...start0.centre, c0, from - Math.PI / 2, start0.rimAngle, false);
  // Where corners meet no rim is left between them; a pen may take an arc of no length for a whole turn.
  if (end0.rimAngle - start0.rimAngle > NO_ARC) pen.arc(cx, cy, outer, start0.rimAngle, end0.rimAngle, false);
  if (c1 > TINY) pen.arc(...end0.centre, c1, end0.rimAngle, to + Math.PI / 2, false);
  const tipDistance = half < Math.PI / 2 ? g / Math.max(Math.sin(half), TINY) : 0;
  if (inner <= TINY || (half < Math.PI / 2 && inner < tipDistance)) {
    const middle = (from + to) / 2;
    const tip = half < Math.PI / 2 ? tipDistance : 0;
    pen.lineTo(cx + tip * Math.cos(middle), cy + tip * Math.sin(middle));
  } else {
    const end1 = corner(to, -1, c2, "inner");
    const start1 = corner(from, 1, c3, "inner");
    pen.lineTo(...end1.onEdge);
    if (c2 > TINY) pen.arc(...end1.centre, c2, to + Math.PI / 2, end1.rimAngle + Math.PI, false);
    if (end1.rimAngle - start1.rimAngle > NO_ARC)
      pen.arc(cx, cy, inner, end1.rimAngle, start1.rimAngle, true);
    if (c3 > TINY) pen.arc(...start1.centre, c3, start1.rimAngle + Math.PI, from + Math.PI * 1.5, false);
  }
  pen.closePath();
}

/**
 * Radii that fit into a box: all shrink together until no two meet. Radii are top left, top right, bottom
 * right, bottom left.
 */
export function fittedRadii({
  width,
  height,
  radii,
}: Pick<Rect, "width" | "height" | "radii">): [number, number, number, number] {
  const [a, b, c, d] = radii.map((r) => Math.max(0, r));
  const scale = Math.min(
    1,
    ...[
      [width, a + b],
      [width, d + c],
      [height, a + d],
      [height, b + c],
    ].map(([side, sum]) => (sum > 0 ? side / sum : 1)),
  );
  return [a * scale, b * scale, c * scale, d * scale];
}

/** Writes a box with four rounded corners. */
export function drawRect(pen: Pen, shape: Pick<Rect, "x" | "y" | "width" | "height" | "radii">): void {
  const { x, y, width, height } = shape;
  if (!(width > 0) || !(height > 0)) return;
  const [a, b, c, d] = fittedRadii(shape);
  pen.moveTo(x + a, y);
  pen.lineTo(x + width - b, y);
  if (b > TINY) pen.arc(x + width - b, y + b, b, -Math.PI / 2, 0, false);
  pen.lineTo(x + width, y + height - c);
  if (c > TINY) pen.arc(x + width - c, y + height - c, c, 0, Math.PI / 2, false);
  pen.lineTo(x + d, y + height);
  if (d > TINY) pen.arc(x + d, y + height - d, d, Math.PI / 2, Math.PI, false);
  pen.lineTo(x, y + a);
  if (a > TINY) pen.arc(x + a, y + a, a, Math.PI, Math.PI * 1.5, false);
  pen.closePath();
}

const fixed = (n: number) => String(Math.round(n * 1000) / 1000 + 0);

/** A pen that writes SVG path data. */
export class SvgPath implements Pen {
  private parts: string[] = [];
  moveTo(x: number, y: number): void {
    this.parts.push(`M${fixed(x)} ${fixed(y)}`);
  }
  lineTo(x: number, y: number): void {
    this.parts.push(`L${fixed(x)} ${fixed(y)}`);
  }
  arc(cx: number, cy: number, r: number, startAngle: number, endAngle: number, anticlockwise = false): void {
    const turn = 2 * Math.PI;
    let sweep = endAngle - startAngle;
    if (!anticlockwise && sweep < -TINY) sweep = ((sweep % turn) + turn) % turn;
    if (anticlockwise && sweep > TINY) sweep = -(((-sweep % turn) + turn) % turn);
    const at = (angle: number) => `${fixed(cx + r * Math.cos(angle))} ${fixed(cy + r * Math.sin(angle))}`;
    this.parts.push(`L${at(startAngle)}`);
    const large = Math.abs(sweep) > Math.PI ? 1 : 0;
    this.parts.push(`A${fixed(r)} ${fixed(r)} 0 ${large} ${anticlockwise ? 0 : 1} ${at(startAngle + sweep)}`);
  }
  closePath(): void {
    this.parts.push("Z");
  }
  toString(): string {
    return this.parts.join("");
  }
}
