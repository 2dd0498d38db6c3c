/** A small table as it is typed: names of columns and cells as texts, each row as long as the names. */
export interface TypedGrid {
  names: string[];
  rows: string[][];
}

/** What is typed by hand is small; larger tables come from files. */
export const GRID_LIMITS = { rows: 200, columns: 20 } as const;

/** An empty grid to type in. */
export const emptyGrid = (columns = 2, rows = 6): TypedGrid => ({
  names: Array.from({ length: columns }, (_, i) => `Column ${i + 1}`),
  rows: Array.from({ length: rows }, () => Array.from({ length: columns }, () => "")),
});

/** A name that no column has yet. */
function freeColumn(names: string[]): string {
  for (let n = names.length + 1; ; n++) if (!names.includes(`Column ${n}`)) return `Column ${n}`;
}

/** The grid with at least so many rows and columns, as far as its limits go. */
export function grownTo(grid: TypedGrid, rows: number, columns: number): TypedGrid {
  const names = [...grid.names];
  while (names.length < Math.min(columns, GRID_LIMITS.columns)) names.push(freeColumn(names));
  const count = Math.max(grid.rows.length, Math.min(rows, GRID_LIMITS.rows));
  return {
    names,
    rows: Array.from({ length: count }, (_, r) => names.map((_name, c) => grid.rows[r]?.[c] ?? "")),
  };
}

/** The grid with a text in one cell; row -1 is the names. */
export function withCell(grid: TypedGrid, row: number, column: number, text: string): TypedGrid {
  if (row < 0) return { ...grid, names: grid.names.map((name, c) => (c === column ? text : name)) };
  return {
    ...grid,
    rows: grid.rows.map((cells, r) =>
      r === row ? cells.map((cell, c) => (c === column ? text : cell)) : cells,
    ),
  };
}

/**
 * The grid with copied cells (lines with tabs) laid over it from one cell on; row -1 begins with the names.
 * It grows for them; what would lie past its limits is left out, and `cut` says so.
 */
export function withPasted(
  grid: TypedGrid,
  row: number,
  column: number,
  text: string,
): { grid: TypedGrid; cut: boolean } {
  const lines = text
    .replace(/\r\n?/g, "\n")
    .replace(/\n$/, "")
    .split("\n")
    .map((line) => line.split("\t"));
  const wide = Math.max(...lines.map((cells) => cells.length));
  let next = grownTo(grid, row + lines.length, column + wide);
  let cut = false;
  for (const [r, cells] of lines.entries())
    for (const [c, cell] of cells.entries()) {
      const [toRow, toColumn] = [row + r, column + c];
      if (toRow >= next.rows.length || toColumn >= next.names.length) cut = true;
      else next = withCell(next, toRow, toColumn, cell.trim());
    }
  return { grid: next, cut };
}

/** The grid without a row. */
export const withoutRow = (grid: TypedGrid, row: number): TypedGrid => ({
  ...grid,
  rows: grid.rows.filter((_, r) => r !== row),
});

/** The grid without a column. */
export const withoutColumn = (grid: TypedGrid, column: number): TypedGrid => ({
  names: grid.names.filter((_, c) => c !== column),
  rows: grid.rows.map((cells) => cells.filter((_, c) => c !== column)),
});

/** Why a grid cannot be a table yet, in words; null where it can. */
export function gridProblem({ names, rows }: TypedGrid): string | null {
  if (names.length === 0) return "A table needs a column.";
  const nameless = names.findIndex((name) => name.trim() === "");
  if (nameless >= 0) return `Column ${nameless + 1} needs a name.`;
  const seen = new Set<string>();
  for (const name of names) {
    const key = name.trim().toLowerCase();
    if (seen.has(key)) return `Two columns are called “${name.trim()}”.`;
    seen.add(key);
  }
  return rows.some((cells) => cells.some((cell) => cell.trim() !== "")) ? null : "Type at least one cell.";
}

const quoted = (text: string) => `"${text.replaceAll('"', '""')}"`;

/** The grid as CSV (RFC 4180), every cell in quotes; rows without any cell are left out. */
export function gridToCsv({ names, rows }: TypedGrid): string {
  const filled = rows.filter((cells) => cells.some((cell) => cell.trim() !== ""));
  return [names.map((name) => name.trim()), ...filled]
    .map((cells) => cells.map((cell) => (cell === "" ? "" : quoted(cell))).join(","))
    .join("\r\n")
    .concat("\r\n");
}
