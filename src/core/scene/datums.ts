import type { Datum, Mark, Scene } from "./marks";

/** A datum of a scene, and where a reader's eye finds it: a point in pixels. */
export interface PlacedDatum {
  datum: Datum;
  x: number;
  y: number;
}

/** The middle of what a mark covers, in pixels. */
export function middleOf(mark: Mark): [number, number] {
  switch (mark.type) {
    case "sector": {
      const angle = (((mark.start + mark.end) / 2 - 90) * Math.PI) / 180;
      const r = (mark.inner + mark.outer) / 2;
      return [mark.cx + r * Math.cos(angle), mark.cy + r * Math.sin(angle)];
    }
    case "rect":
    case "picture":
      return [mark.x + mark.width / 2, mark.y + mark.height / 2];
    case "circle":
      return [mark.cx, mark.cy];
    case "line": {
      const [[x0, y0], [x1, y1]] = [mark.points[0], mark.points[mark.points.length - 1]];
      return [(x0 + x1) / 2, (y0 + y1) / 2];
    }
    case "icon":
      return [mark.x + mark.size / 2, mark.y + mark.size / 2];
    default:
      return [mark.x, mark.y];
  }
}

/**
 * What a scene says mark by mark, each once, in the order it is drawn: what is walked through by arrow keys,
 * and the rows of its table of numbers.
 */
export function datumsOf(scene: Pick<Scene, "marks">): PlacedDatum[] {
  const found = new Map<string, PlacedDatum & { isData: boolean }>();
  for (const mark of scene.marks) {
    const { datum } = mark;
    if (!datum) continue;
    const key = JSON.stringify(datum);
    const isData = mark.surface === "data";
    const before = found.get(key);
    // The shape that stands for the value is where the datum is; names and tracks beside it say the same.
    if (before && (before.isData || !isData)) continue;
    const [x, y] = middleOf(mark);
    if (before) Object.assign(before, { x, y, isData });
    else found.set(key, { datum, x, y, isData });
  }
  return [...found.values()].map(({ datum, x, y }) => ({ datum, x, y }));
}

/**
 * The numbers of a scene as a table: a column for each kind of line that its data say, a row for each
 * datum of a row, with that datum.
 */
export function tableOf(datums: PlacedDatum[]): {
  columns: string[];
  rows: { title: string; cells: string[]; datum: Datum }[];
} {
  const all = datums.filter(({ datum }) => datum.side === undefined);
  const columns = [...new Set(all.flatMap(({ datum }) => datum.lines.map((line) => line.label)))];
  const rows = all.map(({ datum }) => ({
    datum,
    title: datum.title,
    // One notation a column: in full where one of its numbers is written shorter elsewhere.
    cells: columns.map((label) => {
      const line = datum.lines.find((l) => l.label === label);
      return line ? (line.exact ?? line.value) : "";
    }),
  }));
  return { columns, rows };
}

/** A datum as one line of text. */
export const datumText = ({ title, lines }: Datum): string =>
  [title, ...lines.map(({ label, value }) => `${label} ${value}`)].filter(Boolean).join(", ");
