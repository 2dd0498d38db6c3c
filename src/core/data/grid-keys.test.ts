import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { committed, copiedFrom, type GridStep, gridKey, type KeyPress, walkAt } from "./grid-keys";
import { emptyGrid, GRID_LIMITS, type TypedGrid } from "./typed-grid";

const SPECIAL: Record<string, KeyPress> = {
  "→": { key: "Tab" },
  "←": { key: "Tab", shift: true },
  "↵": { key: "Enter" },
  "↑": { key: "ArrowUp" },
  "⇩": { key: "ArrowDown", shift: true },
  "⇨": { key: "ArrowRight", shift: true },
  "␡": { key: "Delete" },
  "⎋": { key: "Escape" },
  D: { key: "d", control: true },
  A: { key: "a", control: true },
};

/** Presses keys one after the other; what a typed text takes is added to it, as a field does. */
function pressed(keys: string, grid: TypedGrid, row = 0, column = 0): GridStep {
  let step: GridStep = { grid, walk: walkAt({ row, column }) };
  for (const sign of keys) {
    const next = gridKey(step.grid, step.walk, SPECIAL[sign] ?? { key: sign });
    if (next) step = next;
    else if (step.walk.typed !== null && !SPECIAL[sign])
      step = { ...step, walk: { ...step.walk, typed: step.walk.typed + sign } };
  }
  return step;
}
const rows = (keys: string, grid = emptyGrid(2, 2), row = 0, column = 0) => {
  const { grid: now, walk } = pressed(keys, grid, row, column);
  return committed(now, walk).rows;
};

describe("a table that is typed by keyboard", () => {
  it("goes on to the next row from the last column, and grows for it", () => {
    expect(rows("a→1→b→2→c→3→")).toEqual([
      ["a", "1"],
      ["b", "2"],
      ["c", "3"],
      ["", ""],
    ]);
  });

  it("returns with Enter to the column where the row was begun", () => {
    expect(rows("a→1↵b→2↵c→↵d")).toEqual([
      ["a", "1"],
      ["b", "2"],
      ["c", ""],
      ["d", ""],
    ]);
    expect(rows("1↵2↵3", emptyGrid(2, 2), 0, 1)).toEqual([
      ["", "1"],
      ["", "2"],
      ["", "3"],
    ]);
    expect(pressed("x→y→", emptyGrid(3, 2), 0, 1).walk.at).toEqual({ row: 1, column: 1 });
  });

  it("names columns in the row of names, and goes back with Shift", () => {
    const { grid, walk } = pressed("month→target→", emptyGrid(2, 2), -1, 0);
    expect([grid.names, walk.at]).toEqual([["month", "target"], { row: 0, column: 0 }]);
    expect(pressed("a→b←", emptyGrid(2, 2)).walk.at).toEqual({ row: 0, column: 0 });
    expect(pressed("a→b→c←", emptyGrid(2, 2)).walk.at).toEqual({ row: 0, column: 1 });
  });

  it("loses no cell, whatever is typed and walked with Tab and Enter", () => {
    const word = fc.stringMatching(/^[b-z]{1,3}$/);
    fc.assert(
      fc.property(fc.array(fc.tuple(word, fc.constantFrom("→", "↵")), { maxLength: 40 }), (typed) => {
        // Each word goes into a cell of its own: none is written over by a later one.
        const all = rows(typed.map(([text, key]) => text + key).join("")).flat();
        expect(all.filter((text) => text !== "").toSorted()).toEqual(typed.map(([text]) => text).toSorted());
      }),
    );
  });

  it("stays in the last cell where it is full, and Escape takes back what is being typed", () => {
    const full = emptyGrid(1, GRID_LIMITS.rows);
    expect(pressed("a→", full, GRID_LIMITS.rows - 1).walk.at.row).toBe(GRID_LIMITS.rows - 1);
    expect(rows("ab⎋", { names: ["n"], rows: [["1"]] })).toEqual([["1"]]);
  });
});

const targets: TypedGrid = {
  names: ["month", "target"],
  rows: [
    ["1", "100"],
    ["2", "120"],
    ["3", "140"],
  ],
};

describe("cells that are selected", () => {
  it("are cleared, filled down, and copied as lines with tabs", () => {
    expect(rows("⇩⇨␡", targets)).toEqual([
      ["", ""],
      ["", ""],
      ["3", "140"],
    ]);
    expect(rows("⇩⇩⇨D", targets)).toEqual([
      ["1", "100"],
      ["1", "100"],
      ["1", "100"],
    ]);
    // One row is filled from the one above it.
    expect(rows("⇨D", targets, 1)).toEqual([
      ["1", "100"],
      ["1", "100"],
      ["3", "140"],
    ]);
    expect(rows("D", targets)).toEqual(targets.rows);
    const { grid, walk } = pressed("A", targets);
    expect(copiedFrom(grid, walk)).toBe("1\t100\n2\t120\n3\t140");
  });

  it("are let go by any step without Shift, and names are not cleared with cells", () => {
    expect(rows("⇩↑␡", targets)).toEqual([["", "100"], ...targets.rows.slice(1)]);
    expect(pressed("␡", targets, -1).grid.names).toEqual(["", "target"]);
  });
});
