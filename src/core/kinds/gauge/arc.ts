import { mix } from "../../scene/colour";
import type { Datum, Mark, Sector } from "../../scene/marks";
import type { SceneInput } from "../anatomy/kind";
import { clamp } from "../anatomy/scale";
import type { Face } from "./face";
import type { GaugePart } from "./parts";
import { type Stretch, zoneColour } from "./zones";

type Input = SceneInput<GaugePart>;

/** What an arc shows: its zones, the share of the scale that is reached, and the colour of progress. */
export interface ArcWanted {
  zones: Stretch[];
  share: number;
  tone: string;
  datum: Datum;
}

/** A piece of the arc from one share of its sweep to another. */
interface Piece {
  id: string;
  part: string;
  from: number;
  to: number;
  fill: string;
  /** Its radii, where they are not those of the whole arc. */
  rim?: { inner: number; outer: number };
  corners?: Sector["corners"];
  inset?: number;
}

function sectorOf({ style }: Input, face: Face, datum: Datum, piece: Piece): Sector {
  const { cx, cy, r, inner, start, sweep } = face;
  const { id, part, from, to, fill, rim = { inner, outer: r }, inset = 0 } = piece;
  const cap = style.choice("arc.caps") === "round" ? (r - inner) / 2 : 0;
  return {
    type: "sector",
    id,
    part,
    cx,
    cy,
    ...rim,
    start: start + sweep * from,
    end: start + sweep * to,
    inset,
    corners: piece.corners ?? [cap, cap, cap, cap],
    fill,
    datum,
    surface: "data",
    whole: { from: start, to: start + sweep, axis: "angle" },
  };
}

const ZONE_STEPS = 12;

/**
 * A zone whose colour deepens along it, in steps; each reaches a little under the next, so that
 * no seam shows.
 */
function zoneRamp({ at: place, from, until }: Stretch, tone: string): Piece[] {
  const at = (i: number) => from + ((until - from) * i) / ZONE_STEPS;
  return Array.from({ length: ZONE_STEPS }, (_, i) => ({
    id: `zone:${place}/${i}`,
    part: "zones",
    from: at(i),
    to: i === ZONE_STEPS - 1 ? until : at(i + 1.15),
    fill: mix(mix(tone, "#ffffff", 0.35), tone, i / (ZONE_STEPS - 1)),
    corners: [0, 0, 0, 0],
  }));
}

function zonePieces({ style, theme }: Input, { r, inner }: Face, zones: Stretch[]): Piece[] {
  const cap = style.choice("arc.caps") === "round" ? (r - inner) / 2 : 0;
  const inset = zones.length > 1 ? style.number("zones.gap") / 2 : 0;
  return zones.flatMap((zone, i): Piece[] => {
    const fill = zoneColour(zone, theme);
    if (style.toggle("zones.ramp")) return zoneRamp(zone, fill);
    const first = i === 0 ? cap : 0;
    const last = i === zones.length - 1 ? cap : 0;
    const corners: Sector["corners"] = [first, last, last, first];
    return [{ id: `zone:${zone.at}`, part: "zones", from: zone.from, to: zone.until, fill, inset, corners }];
  });
}

/** The second lap of a value past the end, within the arc. */
function lapPiece({ theme }: Input, { r, inner }: Face, share: number): Piece {
  const thin = Math.max(2, (r - inner) * 0.3);
  const rim = { inner: inner - 2 - thin, outer: inner - 2 };
  return {
    id: "lap",
    part: "arc",
    from: 0,
    to: clamp(share - 1),
    fill: mix(theme.ink, theme.sheet, 0.15),
    rim,
  };
}

/** The arc: its zones or its track, how far the value reaches along it, and a second lap. */
export function arcMarks(input: Input, face: Face, { zones, share, tone, datum }: ArcWanted): Mark[] {
  const { style, theme, data } = input;
  const { r, inner } = face;
  const fill = zones.length === 0 ? "progress" : style.choice("arc.fill");
  const sector = (piece: Piece) => sectorOf(input, face, datum, piece);
  const shows = { row: data.rows[0].key, value: data.total ?? 0, channel: "angle" } as const;
  const reached = { id: "progress", part: "arc", from: 0, to: clamp(share) };
  const marks: Mark[] = [];
  if (fill === "progress") {
    const track = sector({ id: "track", part: "arc", from: 0, to: 1, fill: theme.track });
    marks.push({ ...track, surface: "track" });
    if (share > 0) marks.push({ ...sector({ ...reached, fill: tone }), shows, grow: "sweep" });
  } else marks.push(...zonePieces(input, face, zones).map(sector));
  if (fill === "both" && share > 0) {
    const [middle, half] = [(r + inner) / 2, (r - inner) * 0.2];
    const rim = { inner: middle - half, outer: middle + half };
    marks.push({ ...sector({ ...reached, fill: theme.ink, rim }), shows });
  }
  if (style.choice("arc.past") === "lap" && share > 1) marks.push(sector(lapPiece(input, face, share)));
  return marks;
}

/** The tip at the end of the arc of a value that lies past it. */
export function tipMark({ theme }: Input, { cx, cy, r, inner, start, sweep }: Face, datum: Datum): Mark {
  const back = -(r - inner) * 0.75;
  return {
    type: "polygon",
    id: "past",
    part: "arc",
    x: cx,
    y: cy,
    rotate: start + sweep,
    points: [
      [back, -inner],
      [back, -r],
      [0, -(inner + r) / 2],
    ],
    fill: theme.signal,
    datum,
  };
}
