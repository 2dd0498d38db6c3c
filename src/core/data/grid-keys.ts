import { GRID_LIMITS, grownTo, type TypedGrid, withCell } from "./typed-grid";

/** A place in the grid; row -1 is the names of the columns. */
export interface Place {
  row: number;
  column: number;
}

/** Where somebody is in a grid of cells. */
export interface GridWalk {
  at: Place;
  /** The other corner of what is selected; `at` itself where that is one cell. */
  anchor: Place;
  /** The text of the cell that is being typed in; null while none is. */
  typed: string | null;
  /** The column in which a row of cells was begun that Tab goes along; null outside of one. */
  began: number | null;
}

/** A key as it is pressed. `control` is also the command key. */
export interface KeyPress {
  key: string;
  shift?: boolean;
  control?: boolean;
  alt?: boolean;
}

/** What a key does: where somebody is then, and the grid after it. Null where the key means nothing here. */
export interface GridStep {
  walk: GridWalk;
  grid: TypedGrid;
}

export const walkAt = (at: Place): GridWalk => ({ at, anchor: at, typed: null, began: null });

const ARROWS: Record<string, [number, number]> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

const textAt = ({ names, rows }: TypedGrid, { row, column }: Place) =>
  (row < 0 ? names[column] : rows[row]?.[column]) ?? "";

const within = ({ names, rows }: TypedGrid, { row, column }: Place): Place => ({
  row: Math.max(-1, Math.min(rows.length - 1, row)),
  column: Math.max(0, Math.min(names.length - 1, column)),
});

/** The rows and columns that are selected, the last ones included. */
export function selectedIn({ at, anchor }: GridWalk): { from: Place; to: Place } {
  return {
    from: { row: Math.min(at.row, anchor.row), column: Math.min(at.column, anchor.column) },
    to: { row: Math.max(at.row, anchor.row), column: Math.max(at.column, anchor.column) },
  };
}

/** The grid with a text for each selected cell; null leaves one as it is. */
function withEach(grid: TypedGrid, walk: GridWalk, textOf: (place: Place) => string | null): TypedGrid {
  const { from, to } = selectedIn(walk);
  let next = grid;
  for (let row = from.row; row <= to.row; row++)
    for (let column = from.column; column <= to.column; column++) {
      const text = textOf({ row, column });
      if (text !== null && text !== textAt(next, { row, column })) next = withCell(next, row, column, text);
    }
  return next;
}

/** The grid with what is being typed in its cell. */
export const committed = (grid: TypedGrid, { at, typed }: GridWalk): TypedGrid =>
  typed === null || typed === textAt(grid, at) ? grid : withCell(grid, at.row, at.column, typed);

/** The grid with a further row where somebody goes on below the last one, as far as there is room. */
const withRowFor = (grid: TypedGrid, row: number): TypedGrid =>
  row >= grid.rows.length && row < GRID_LIMITS.rows ? grownTo(grid, row + 1, 0) : grid;

/** Tab: along the row, and on to the next one; with Shift back. */
function alongRow(grid: TypedGrid, { at, began }: GridWalk, back: boolean): GridStep {
  const last = grid.names.length - 1;
  if (back) {
    const to = at.column > 0 ? { row: at.row, column: at.column - 1 } : { row: at.row - 1, column: last };
    return { grid, walk: walkAt(at.column === 0 && at.row < 0 ? at : to) };
  }
  if (at.column < last)
    return {
      grid,
      walk: { ...walkAt({ row: at.row, column: at.column + 1 }), began: began ?? at.column },
    };
  const next = withRowFor(grid, at.row + 1);
  // Where the grid is full it stays: the cell is not typed over, since it is only chosen.
  const row = Math.min(at.row + 1, next.rows.length - 1);
  const column = row === at.row ? last : (began ?? 0);
  return { grid: next, walk: { ...walkAt({ row, column }), began: began ?? 0 } };
}

/** Enter: down, to the column where the row was begun; with Shift up. */
function downRow(grid: TypedGrid, { at, began }: GridWalk, back: boolean): GridStep {
  const next = back ? grid : withRowFor(grid, at.row + 1);
  const to = within(next, { row: at.row + (back ? -1 : 1), column: began ?? at.column });
  return { grid: next, walk: walkAt(to) };
}

/** A key while a cell is typed in: what is no step of the grid belongs to the text. */
function typingKey(grid: TypedGrid, walk: GridWalk, { key, shift = false }: KeyPress): GridStep | null {
  if (key === "Escape") return { grid, walk: { ...walk, typed: null } };
  const done = committed(grid, walk);
  if (key === "Tab") return alongRow(done, walk, shift);
  return key === "Enter" ? downRow(done, walk, shift) : null;
}

/** Moves to a place, or with Shift to it from what was selected so far. */
function moved(grid: TypedGrid, walk: GridWalk, to: Place, isSelecting: boolean): GridStep {
  const at = within(grid, to);
  return { grid, walk: isSelecting ? { ...walk, at, began: null } : walkAt(at) };
}

function commandKey(grid: TypedGrid, walk: GridWalk, key: string): GridStep | null {
  const { from } = selectedIn(walk);
  if (key === "a") {
    const whole = { at: within(grid, { row: grid.rows.length, column: grid.names.length }), began: null };
    return { grid, walk: { ...walk, ...whole, anchor: { row: 0, column: 0 } } };
  }
  if (key !== "d") return null;
  // One row is filled from the one above it, several from their first.
  const isOneRow = walk.at.row === walk.anchor.row;
  const source = isOneRow ? from.row - 1 : from.row;
  if (source < 0 || from.row < 0) return { grid, walk };
  return { walk, grid: withEach(grid, walk, ({ column }) => textAt(grid, { row: source, column })) };
}

/**
 * What a key does in a grid of cells: arrows, Tab, Enter, Home and End go, with Shift they select; a
 * character begins to type over, Enter or F2 changes what is there; Delete clears what is selected, Ctrl+D
 * fills it down.
 */
export function gridKey(grid: TypedGrid, walk: GridWalk, press: KeyPress): GridStep | null {
  if (walk.typed !== null) return typingKey(grid, walk, press);
  const { key, shift = false, control = false, alt = false } = press;
  const { at, began } = walk;
  if (alt) return null;
  if (control) return commandKey(grid, walk, key.toLowerCase());
  const arrow = Object.hasOwn(ARROWS, key) ? ARROWS[key] : null;
  if (arrow) return moved(grid, walk, { row: at.row + arrow[0], column: at.column + arrow[1] }, shift);
  if (key === "Home") return moved(grid, walk, { row: at.row, column: 0 }, shift);
  if (key === "End") return moved(grid, walk, { row: at.row, column: grid.names.length - 1 }, shift);
  // Tab leaves the grid, but for a row that is being filled in; Escape ends that.
  if (key === "Escape") return began === null ? null : { grid, walk: walkAt(at) };
  if (key === "Tab") return began === null ? null : alongRow(grid, walk, shift);
  if (key === "Enter" && began !== null) return downRow(grid, walk, shift);
  if (key === "Enter" || key === "F2") return { grid, walk: { ...walkAt(at), typed: textAt(grid, at) } };
  if (key === "Delete" || key === "Backspace")
    return { walk, grid: withEach(grid, walk, ({ row }) => (row < 0 && at.row >= 0 ? null : "")) };
  if (key.length === 1) return { grid, walk: { ...walkAt(at), typed: key, began } };
  return null;
}

/** What is selected, as lines with tabs: what other programs take for cells. */
export function copiedFrom(grid: TypedGrid, walk: GridWalk): string {
  const { from, to } = selectedIn(walk);
  const lines: string[] = [];
  for (let row = from.row; row <= to.row; row++) {
    const cells: string[] = [];
    for (let column = from.column; column <= to.column; column++) cells.push(textAt(grid, { row, column }));
    lines.push(cells.join("\t"));
  }
  return lines.join("\n");
}
