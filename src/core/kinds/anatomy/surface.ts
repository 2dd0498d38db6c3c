import { contrast, mix, type Theme, textOn } from "../../scene/colour";
import { covers } from "../../scene/hit";
import type { Circle, Fill, Mark, Rect, Sector, Stop, Text } from "../../scene/marks";
import { textWidth } from "../../scene/text";
import { choice, colour, number, part } from "./dial";
import type { Style } from "./style";

/** Dashes, which kinds whose shapes are small already have not. */
const DASHES = part("surface", "Surface", [
  number("dashes", "Dashes", [0, 80, 1], "", 0),
  number("dashGap", "Dash gap", [10, 70, 1], "%", 40),
]);

/** How shapes are painted. */
export const surfacePart = (dashes: boolean) =>
  part("surface", "Surface", [
    choice(
      "shade",
      "Shade",
      [
        ["flat", "flat"],
        ["soft", "soft"],
        ["ramp", "ramp"],
        ["embossed", "embossed"],
        ["outline", "outline"],
      ],
      "flat",
    ),
    colour("from", "Ramp start"),
    colour("middle", "Ramp middle"),
    number("strength", "Strength", [40, 100, 1], "%", 100),
    number("shadow", "Shadow", [0, 24, 1], "px", 0),
    ...(dashes ? DASHES.dials : []),
  ]);

type SurfacePart = ReturnType<typeof surfacePart>;
type Shade = ReturnType<Style<SurfacePart>["choice"]>;

/**
 * A ramp along an arc is made of so many pieces, whatever the value, so that a change moves them
 * and none appears.
 */
const PIECES = 36;
const RAD = Math.PI / 180;

/**
 * Shares of a whole (0 to 1) as the stretches that dashes draw of them: `count` cells, each drawn over 1 -
 * `gap` of its width.
 */
export function dashStretches(
  from: number,
  to: number,
  count: number,
  gap: number,
): { cell: number; from: number; to: number }[] {
  const out: { cell: number; from: number; to: number }[] = [];
  const place = (cell: number, part: number) => (cell + gap / 2 + part * (1 - gap)) / count;
  for (let cell = Math.max(0, Math.floor(from * count)); cell < count && cell < to * count; cell++) {
    const [a, b] = [Math.max(0, from * count - cell), Math.min(1, to * count - cell)];
    if (b - a > 1e-9) out.push({ cell, from: place(cell, a), to: place(cell, b) });
  }
  return out;
}

const READABLE = 4.5;
const found = new Map<string, string>();

/**
 * A colour moved towards black or white, by at most `depth`, as far as the ink that reads on the colour
 * itself reads on it too.
 */
function readable(color: string, towards: string, depth: number): string {
  const key = `${color}${towards}${depth}`;
  let moved = found.get(key);
  if (moved === undefined) {
    const ink = textOn(color);
    moved = color;
    for (let step = depth; step > 0.01; step -= 0.02) {
      const tried = mix(color, towards, step);
      if (contrast(tried, ink) < READABLE) continue;
      moved = tried;
      break;
    }
    if (found.size > 2000) found.clear();
    found.set(key, moved);
  }
  return moved;
}

/**
 * How shapes that stand for values are painted: flat or with depth, whole or in dashes, with a shadow or
 * none. One place for all kinds.
 */
export class Surface {
  private readonly shade: Shade;
  private readonly shadow: number;
  private readonly dashes: number;
  private readonly gap: number;
  /** Colours of one's own at the beginning and in the middle of ramps; empty where they follow the shape's. */
  private readonly from: string;
  private readonly middle: string;
  /** How much of a shape's colour shows on the sheet, 0 to 1. */
  private readonly strength: number;

  constructor(
    style: Style<SurfacePart>,
    private readonly theme: Theme,
  ) {
    this.shade = style.choice("surface.shade");
    this.shadow = style.number("surface.shadow");
    const dashed = style.within(DASHES);
    this.dashes = dashed?.number("surface.dashes") ?? 0;
    this.gap = (dashed?.number("surface.dashGap") ?? 0) / 100;
    this.from = style.colour("surface.from", "");
    this.middle = style.colour("surface.middle", "");
    this.strength = style.number("surface.strength") / 100;
  }

  /** A colour as strong as shapes are drawn. */
  shown(color: string): string {
    return this.strength === 1 ? color : mix(color, this.theme.sheet, 1 - this.strength);
  }

  /** The colours along a ramp that ends in a colour. */
  private along(color: string, free = false): string[] {
    return [this.begin(color, free), ...(this.middle ? [this.shown(this.middle)] : []), color];
  }

  /** The colour at a share of a ramp that ends in a colour. */
  private rampAt(color: string, share: number, free = true): string {
    const colours = this.along(color, free);
    const at = share * (colours.length - 1);
    const i = Math.min(Math.floor(at), colours.length - 2);
    return mix(colours[i], colours[i + 1], at - i);
  }

  /**
   * The colours that a shape of one colour shows. Where text stands on it, its depth ends where the text
   * would no longer read.
   */
  private tones(color: string, free = false): { low: string; base: string; high: string } {
    const depth = this.shade === "soft" ? 0.1 : 0.26;
    if (free)
      return { low: mix(color, "#000000", depth), base: color, high: mix(color, "#ffffff", depth * 1.2) };
    return { low: readable(color, "#000000", depth), base: color, high: readable(color, "#ffffff", depth) };
  }

  private pale(color: string): string {
    return mix(color, this.theme.sheet, 0.84);
  }

  /** The paler beginning of a ramp that ends in a colour. */
  private begin(color: string, free = false): string {
    if (this.from) return this.shown(this.from);
    return free ? mix(color, this.theme.sheet, 0.62) : readable(color, this.theme.sheet, 0.5);
  }

  /** A text colour that reads anywhere on a shape of this colour. */
  inkOn(wanted: string): string {
    const color = this.shown(wanted);
    if (this.shade === "outline") return textOn(this.pale(color));
    if (this.shade === "ramp") return textOn(...this.along(color));
    const { low, base, high } = this.tones(color);
    return this.shade === "embossed" || this.shade === "soft" ? textOn(low, base, high) : textOn(base);
  }

  /**
   * The ink of a text that stands on a track of a colour; null where none reads on all that lies under it.
   * `beside` says that the text reaches out of the track, onto the sheet.
   */
  inkOnTrack(color: string, beside = false): string | null {
    const { theme, shade } = this;
    const embossed = [this.tones(color, true), this.tones(color)].flatMap((t) => [t.low, t.base, t.high]);
    const drawn = {
      outline: [mix(color, theme.sheet, 0.45)],
      embossed,
      flat: [color],
      soft: [color],
      ramp: [color],
    }[shade];
    const under = beside || this.dashes > 0 ? [...drawn, theme.sheet] : drawn;
    const reads = (ink: string) => under.every((d) => contrast(ink, d) >= READABLE);
    return [theme.ink, textOn(...under)].find(reads) ?? null;
  }

  /** Whether text may stand on shapes: not on those in dashes, nor on a ramp between colours of one's own. */
  get carriesText(): boolean {
    return this.dashes === 0 && !(this.shade === "ramp" && (this.from || this.middle));
  }

  private boxFill(mark: Rect, color: string, free: boolean): Fill {
    const wide = mark.whole ? mark.whole.axis === "x" : mark.width >= mark.height;
    const across = wide ? { x0: 0, y0: 0, x1: 0, y1: 1 } : { x0: 0, y0: 0, x1: 1, y1: 0 };
    if (this.shade === "ramp") {
      const along = { left: [0, 1], right: [1, 0], top: [0, 1], bottom: [1, 0] }[mark.grow as string] ?? [
        0, 1,
      ];
      const [a, b] = along;
      const axis =
        mark.grow === "left" || mark.grow === "right"
          ? { x0: a, y0: 0, x1: b, y1: 0 }
          : { x0: 0, y0: a, x1: 0, y1: b };
      return { type: "linear", ...axis, stops: rampOf(this.along(color, free)) };
    }
    const { low, base, high } = this.tones(color, free);
    const stops =
      mark.surface === "track"
        ? [
            { at: 0, color: mix(color, "#000000", 0.1) },
            { at: 0.6, color },
            { at: 1, color: mix(color, "#ffffff", 0.25) },
          ]
        : [
            { at: 0, color: base },
            { at: 0.35, color: high },
            { at: 1, color: low },
          ];
    return { type: "linear", ...across, stops };
  }

  private sectorFill(mark: Sector, color: string, free: boolean): Fill {
    const { cx, cy, inner, outer } = mark;
    const at = (share: number) => (inner + (outer - inner) * share) / outer;
    const { low, base, high } = this.tones(color, free);
    let stops: Stop[];
    if (this.shade === "ramp")
      stops = rampOf(this.along(color, free)).map((stop) => ({ ...stop, at: at(stop.at) }));
    else if (mark.surface === "track")
      stops = [
        { at: at(0), color: mix(color, "#ffffff", 0.2) },
        { at: at(0.5), color },
        { at: 1, color: mix(color, "#000000", 0.12) },
      ];
    else
      stops = [
        { at: at(0), color: low },
        { at: at(0.5), color: high },
        { at: at(0.72), color: base },
        { at: 1, color: low },
      ];
    return { type: "radial", cx, cy, r: outer, stops };
  }

  private circleFill(mark: Circle, color: string, free: boolean): Fill {
    const { low, base, high } = this.tones(color, free);
    if (this.shade === "ramp")
      return { type: "linear", x0: 0, y0: 1, x1: 0, y1: 0, stops: rampOf(this.along(color, free)) };
    const stops = [
      { at: 0, color: high },
      { at: 0.55, color: base },
      { at: 1, color: low },
    ];
    return {
      type: "radial",
      cx: mark.cx - mark.r * 0.25,
      cy: mark.cy - mark.r * 0.3,
      r: mark.r * 1.3,
      stops,
    };
  }

  /** The shadow of a shape that stands for a value. */
  private shadowOf(mark: Mark): Pick<Mark, "shadow"> {
    if (this.shadow === 0 || mark.surface !== "data") return {};
    const opacity = this.theme.name === "night" ? 0.55 : 0.28;
    return { shadow: { blur: this.shadow, dx: 0, dy: this.shadow / 3, color: "#000000", opacity } };
  }

  /** Paints one shape: the colour it has becomes the fill that the shade makes of it. */
  private painted<T extends Mark>(mark: T, free = true): T {
    const color = mark.fill;
    const shadow = this.shadowOf(mark);
    if (typeof color !== "string" || this.shade === "flat") return { ...mark, ...shadow };
    if (mark.surface === "track" && (this.shade === "ramp" || this.shade === "soft")) return mark;
    if (this.shade === "outline") {
      if (mark.surface === "track") return { ...mark, fill: mix(color, this.theme.sheet, 0.45) };
      const lined = outlined(mark, color);
      // A shape that is too thin for a line within it is all line.
      return { ...lined, fill: lined.stroke === color ? this.pale(color) : color, ...shadow };
    }
    return { ...mark, fill: this.fillOf(mark, color, free), ...shadow };
  }

  private fillOf(mark: Mark, color: string, free: boolean): Fill {
    if (mark.type === "rect") return this.boxFill(mark, color, free);
    if (mark.type === "sector") return this.sectorFill(mark, color, free);
    return mark.type === "circle" ? this.circleFill(mark, color, free) : color;
  }

  /** A sector whose colour deepens along its sweep, in pieces; a round cap keeps the colour of its end. */
  private arcRamp(mark: Sector, color: string, free: boolean): Mark[] {
    const span = mark.end - mark.start;
    const caps = Math.max(...mark.corners);
    const cap = (2 * Math.asin(Math.min(1, caps / Math.max(mark.outer - caps, 1e-6)))) / RAD + 0.5;
    if (span < 2.5 * cap || span < 4) return [this.painted(mark, free)];
    const inner = span - 2 * cap;
    const edges = Array.from({ length: PIECES + 1 }, (_, i) => mark.start + cap + (inner * i) / PIECES);
    edges[0] = mark.start;
    edges[PIECES] = mark.end;
    const pieces = edges.slice(1).map((end, i): Mark => {
      const [first, last] = [i === 0, i === PIECES - 1];
      const corners: Sector["corners"] = [
        first ? mark.corners[0] : 0,
        last ? mark.corners[1] : 0,
        last ? mark.corners[2] : 0,
        first ? mark.corners[3] : 0,
      ];
      // Each piece reaches under the next one, so that no seam shows.
      return {
        ...mark,
        id: `${mark.id}/${i}`,
        start: edges[i],
        end: last ? end : Math.min(mark.end, end + 0.6),
        inset: 0,
        corners,
        fill: this.rampAt(color, i / (PIECES - 1), free),
      };
    });
    // The whole arc casts one shadow, under its pieces: theirs would show where they meet.
    const { shadow } = this.shadowOf(mark);
    const { shows: _shows, datum: _datum, ...plain } = mark;
    return shadow ? [{ ...plain, id: `${mark.id}/shadow`, shadow }, ...pieces] : pieces;
  }

  private dashed(mark: Sector | Rect): Mark[] {
    const { whole } = mark;
    if (!whole) return [this.painted(mark)];
    const length = whole.to - whole.from;
    const [a, b] =
      mark.type === "sector"
        ? [mark.start, mark.end]
        : whole.axis === "x"
          ? [mark.x, mark.x + mark.width]
          : [mark.y, mark.y + mark.height];
    const shares = [(a - whole.from) / length, (b - whole.from) / length].sort((p, q) => p - q);
    const along =
      this.shade === "ramp" && mark.surface === "data" && typeof mark.fill === "string" ? mark.fill : null;
    const count = whole.cells ?? this.dashes;
    return dashStretches(shares[0], shares[1], count, this.gap).map(({ cell, from, to }) => {
      const ends = [whole.from + from * length, whole.from + to * length].sort((p, q) => p - q);
      const fill = along ? this.rampAt(along, (cell + 1) / count) : mark.fill;
      const id = `${mark.id}/${cell}`;
      if (mark.type === "sector") {
        const r = Math.min(2, ...mark.corners.filter((c) => c > 0), (mark.outer - mark.inner) / 4);
        const piece: Sector = {
          ...mark,
          id,
          fill,
          start: ends[0],
          end: ends[1],
          inset: 0,
          corners: [r, r, r, r],
        };
        return along ? { ...piece, ...this.shadowOf(piece) } : this.painted(piece);
      }
      const size = ends[1] - ends[0];
      const r = Math.min(2, size / 2);
      const piece: Rect = {
        ...mark,
        id,
        fill,
        radii: [r, r, r, r],
        ...(whole.axis === "x" ? { x: ends[0], width: size } : { y: ends[0], height: size }),
      };
      return along ? { ...piece, ...this.shadowOf(piece) } : this.painted(piece);
    });
  }

  /** A shape of a value in the strength that shapes are drawn in. */
  private weakened(mark: Mark): Mark {
    return mark.surface === "data" && typeof mark.fill === "string"
      ? { ...mark, fill: this.shown(mark.fill) }
      : mark;
  }

  /** The marks that are left to see: dashes can leave nothing of a small shape. */
  seen(marks: readonly Mark[]): readonly Mark[] {
    return this.dashes > 0 ? this.apply([...marks]) : marks;
  }

  /** The marks as they are drawn. */
  apply(wanted: Mark[]): Mark[] {
    const marks = this.strength === 1 ? wanted : wanted.map((mark) => this.weakened(mark));
    if (this.shade === "flat" && this.shadow === 0 && this.dashes === 0) return marks;
    const texts = this.shade === "flat" ? [] : marks.filter((m) => m.type === "text").map(textMiddle);
    return marks.flatMap((mark): Mark[] => {
      if (!mark.surface) return [mark];
      if (this.dashes > 0 && (mark.type === "sector" || mark.type === "rect")) return this.dashed(mark);
      const free = !texts.some((t) => covers(mark, t.x, t.y));
      if (
        this.shade === "ramp" &&
        mark.surface === "data" &&
        mark.type === "sector" &&
        mark.grow === "sweep" &&
        typeof mark.fill === "string"
      )
        return this.arcRamp(mark, mark.fill, free);
      return [this.painted(mark, free)];
    });
  }
}

/** The middle of a text's box. */
function textMiddle(t: Text): { x: number; y: number } {
  const half = textWidth(t.text, t.size, t.weight) / 2;
  return { x: t.align === "middle" ? t.x : t.align === "start" ? t.x + half : t.x - half, y: t.y };
}

/** Colours spread evenly over a ramp. */
const rampOf = (colours: string[]): Stop[] =>
  colours.map((color, i) => ({ at: i / (colours.length - 1), color }));

/** A stroke that lies within the shape, so that the outline does not lengthen it. */
function outlined<T extends Mark>(mark: T, color: string): T {
  const line = { stroke: color, strokeWidth: 1.75 };
  const half = line.strokeWidth / 2;
  if (mark.type === "rect") {
    if (mark.width < 2 * half || mark.height < 2 * half) return { ...mark };
    return {
      ...mark,
      ...line,
      x: mark.x + half,
      y: mark.y + half,
      width: mark.width - 2 * half,
      height: mark.height - 2 * half,
    };
  }
  if (mark.type === "sector") {
    if (mark.outer - mark.inner < 2 * half) return { ...mark };
    const whole = mark.end - mark.start >= 360 - 1e-6;
    return {
      ...mark,
      ...line,
      outer: mark.outer - half,
      inner: mark.inner > 0 ? mark.inner + half : 0,
      inset: whole ? 0 : mark.inset + half,
    };
  }
  if (mark.type === "circle") return { ...mark, ...line, r: Math.max(0.5, mark.r - half) };
  return { ...mark, ...line };
}
