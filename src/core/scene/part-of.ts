import type { RowKey } from "../rows/row-key";
import { covers } from "./hit";
import type { Datum, Mark, Rect, Scene, Sector, SeriesKey, Shown } from "./marks";

/** What share of a mark's value a part of its rows has, 0 to 1; null where that cannot be told. */
export type ShareOf = (row: RowKey, series?: SeriesKey) => number | null;

/** How strongly a whole is drawn behind its part. */
const WHOLE = 0.32;

/** A bar's part: from the edge that it grows from. */
function partOfRect(mark: Rect, share: number): Rect | null {
  const { x, y, width, height, grow } = mark;
  const radii = mark.radii.map((r) => Math.min(r, (share * Math.max(width, height)) / 2)) as Rect["radii"];
  switch (grow) {
    case "left":
      return { ...mark, width: width * share, radii };
    case "right":
      return { ...mark, x: x + width * (1 - share), width: width * share, radii };
    case "top":
      return { ...mark, height: height * share, radii };
    case "bottom":
      return { ...mark, y: y + height * (1 - share), height: height * share, radii };
    default:
      return null;
  }
}

/** A sector's part: of its sweep from the start, of its area or of its length from the middle outwards. */
function partOfSector(mark: Sector, { channel }: Shown, share: number): Sector | null {
  const { inner, outer, start, end } = mark;
  if (channel === "angle") return { ...mark, end: start + (end - start) * share };
  if (channel === "length") return { ...mark, outer: inner + (outer - inner) * share };
  if (channel !== "area") return null;
  return { ...mark, outer: Math.sqrt(inner ** 2 + share * (outer ** 2 - inner ** 2)) };
}

function partOf(mark: Mark, shows: Shown, share: number): Mark | null {
  if (mark.type === "sector") return partOfSector(mark, shows, share);
  return mark.type === "rect" && shows.channel === "length" ? partOfRect(mark, share) : null;
}

/**
 * A scene whose shapes step back, each with the part of it in front that a share says, in the same scale;
 * null where a picture cannot show parts so: its values are positions, or a shape is cut into pieces. `say`
 * adds to what is said of a mark.
 */
export function withParts(
  scene: Scene,
  shareOf: ShareOf,
  say: (datum: Datum, share: number) => Datum,
): Scene | null {
  const isData = (mark: Mark) => mark.surface === "data" && mark.shows !== undefined;
  const nameOf = ({ row, series }: Shown) => JSON.stringify([row, series ?? null]);
  const counts = new Map<string, number>();
  const shapes = scene.marks.filter(isData);
  for (const mark of shapes) {
    const name = nameOf(mark.shows as Shown);
    counts.set(name, (counts.get(name) ?? 0) + 1);
  }
  if (counts.size === 0) return null;
  const met = new Map<string, number>();
  const marks: Mark[] = [];
  for (const mark of scene.marks) {
    const { shows } = mark;
    const share = shows ? shareOf(shows.row, shows.series) : null;
    const datum = mark.datum && share !== null ? { datum: say(mark.datum, share) } : {};
    // A label within a shape was chosen for its full colour.
    if (mark.type === "text" && shapes.some((shape) => covers(shape, mark.x, mark.y))) continue;
    if (!shows || !isData(mark)) {
      marks.push({ ...mark, ...datum });
      continue;
    }
    if (share === null || share < 0 || share > 1) return null;
    const name = nameOf(shows);
    const all = counts.get(name) as number;
    const ghost = { ...mark, ...datum, opacity: (mark.opacity ?? 1) * WHOLE };
    if (shows.channel === "count") {
      const at = met.get(name) ?? 0;
      met.set(name, at + 1);
      marks.push(at < Math.round(share * all) ? { ...mark, ...datum } : ghost);
      continue;
    }
    const part = all === 1 ? partOf(mark, shows, share) : null;
    if (!part) return null;
    const { shows: _, ...shape } = part;
    marks.push(ghost, ...(share > 0 ? [{ ...shape, ...datum, id: `part:${mark.id}` } as Mark] : []));
  }
  return { ...scene, marks };
}
