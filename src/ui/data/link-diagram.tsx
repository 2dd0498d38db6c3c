import { cutText } from "@/core/base/cut-text";
import type { Link } from "@/core/formula/links";
import type { TableInfo } from "@/core/project/schema";

const BOX = 190;
const GAP_X = 120;
const GAP_Y = 18;
const HEAD = 30;
const LINE = 22;

interface Box {
  name: string;
  /** The columns that take part in a link. */
  columns: string[];
  x: number;
  y: number;
}

/** How many links lead on from a table at most: tables with none stand at the right. */
function depthOf(table: string, links: readonly Link[], passed: string[] = []): number {
  const next = links.filter((l) => l.table === table && !passed.includes(l.to));
  return next.length ? 1 + Math.max(...next.map((l) => depthOf(l.to, links, [...passed, table]))) : 0;
}

/** Places the linked tables in columns, those that links lead to at the right of those they come from. */
function boxesOf(links: readonly Link[]): Box[] {
  const names = [...new Set(links.flatMap((l) => [l.table, l.to]))];
  const most = Math.max(...names.map((n) => depthOf(n, links)));
  const heights = new Map<number, number>();
  return names.map((name) => {
    const columns = [
      ...new Set(
        links.flatMap((l) => [...(l.table === name ? [l.column] : []), ...(l.to === name ? [l.key] : [])]),
      ),
    ];
    const rank = most - depthOf(name, links);
    const y = heights.get(rank) ?? 0;
    heights.set(rank, y + HEAD + columns.length * LINE + 8 + GAP_Y);
    return { name, columns, x: rank * (BOX + GAP_X), y };
  });
}

/**
 * The links as a picture: a box a linked table, a line from each column to the key that it means. The list
 * beside it says the same.
 */
export function LinkDiagram({ tables, links }: { tables: TableInfo[]; links: readonly Link[] }) {
  const boxes = boxesOf(links);
  const heightOf = (box: Box) => HEAD + box.columns.length * LINE + 8;
  const width = Math.max(...boxes.map((b) => b.x)) + BOX;
  const height = Math.max(...boxes.map((b) => b.y + heightOf(b)));
  const anchor = (name: string, column: string, end: "left" | "right") => {
    const box = boxes.find((b) => b.name === name) as Box;
    return {
      x: box.x + (end === "right" ? BOX : 0),
      y: box.y + HEAD + (box.columns.indexOf(column) + 0.5) * LINE,
    };
  };
  return (
    <svg
      role="img"
      aria-label={`${boxes.length} tables, ${links.length} links`}
      viewBox={`-2 -2 ${width + 4} ${height + 4}`}
      style={{ width: width + 4, height: height + 4 }}
      className="max-w-full shrink-0"
    >
      {boxes.map((box) => (
        <g key={box.name} transform={`translate(${box.x},${box.y})`}>
          <rect width={BOX} height={heightOf(box)} rx="7" fill="var(--sheet)" stroke="var(--rule)" />
          <text x="12" y="20" fontSize="13" fontWeight="600" fill="var(--ink)">
            {box.name.length > 20 ? `${cutText(box.name, 19)}…` : box.name}
          </text>
          <text
            x={BOX - 12}
            y="20"
            fontSize="11"
            textAnchor="end"
            fill="var(--muted)"
            fontFamily="var(--font-mono)"
          >
            {(tables.find((t) => t.name === box.name)?.rows ?? 0)
              .toLocaleString("en")
              .replaceAll(",", "\u2009")}
          </text>
          {box.columns.map((c, i) => (
            <text
              key={c}
              x="12"
              y={HEAD + i * LINE + 15}
              fontSize="12"
              fill="var(--muted)"
              fontFamily="var(--font-mono)"
            >
              {c.length > 23 ? `${cutText(c, 22)}…` : c}
            </text>
          ))}
        </g>
      ))}
      {links.map((l) => {
        const from = anchor(l.table, l.column, "right");
        const to = anchor(l.to, l.key, "left");
        const middle = (from.x + to.x) / 2;
        return (
          <g key={`${l.table}.${l.column} ${l.to}`} fill="none" stroke="var(--verdigris)" strokeWidth="1.5">
            <path d={`M${from.x},${from.y} C${middle},${from.y} ${middle},${to.y} ${to.x - 7},${to.y}`} />
            <circle cx={from.x} cy={from.y} r="3" fill="var(--verdigris)" />
            <rect x={to.x - 7} y={to.y - 4} width="7" height="8" fill="var(--sheet)" />
          </g>
        );
      })}
    </svg>
  );
}
