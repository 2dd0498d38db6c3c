import { parse } from "csv-parse/sync";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  emptyGrid,
  GRID_LIMITS,
  gridProblem,
  gridToCsv,
  grownTo,
  type TypedGrid,
  withCell,
  withoutColumn,
  withoutRow,
  withPasted,
} from "./typed-grid";

const targets: TypedGrid = {
  names: ["month", "target"],
  rows: [
    ["2026-01", "100"],
    ["2026-02", "120"],
  ],
};

describe("a small table that is typed", () => {
  it("changes one cell or one name and nothing else", () => {
    expect(withCell(targets, 1, 1, "130").rows).toEqual([
      ["2026-01", "100"],
      ["2026-02", "130"],
    ]);
    expect(withCell(targets, -1, 0, "when").names).toEqual(["when", "target"]);
    expect(targets.rows[1][1]).toBe("120");
  });
  it("takes copied cells from one cell on, and grows for them", () => {
    const { grid, cut } = withPasted(targets, 1, 1, "125\tlow\r\n140\thigh\r\n");
    expect(cut).toBe(false);
    expect(grid).toEqual({
      names: ["month", "target", "Column 3"],
      rows: [
        ["2026-01", "100", ""],
        ["2026-02", "125", "low"],
        ["", "140", "high"],
      ],
    });
    expect(withPasted(emptyGrid(), -1, 0, "name\tvalue\na\t1").grid).toMatchObject({
      names: ["name", "value"],
      rows: expect.arrayContaining([["a", "1"]]),
    });
  });
  it("says where copied cells do not fit any more", () => {
    const many = Array.from({ length: GRID_LIMITS.rows + 5 }, (_, i) => String(i)).join("\n");
    const { grid, cut } = withPasted(targets, 0, 0, many);
    expect(cut).toBe(true);
    expect(grid.rows).toHaveLength(GRID_LIMITS.rows);
  });
  it("loses a row or a column", () => {
    expect(withoutRow(targets, 0).rows).toEqual([["2026-02", "120"]]);
    expect(withoutColumn(targets, 0)).toEqual({ names: ["target"], rows: [["100"], ["120"]] });
  });
  it("is no table without names, with one name twice, or without any cell", () => {
    expect(gridProblem(targets)).toBeNull();
    expect(gridProblem(withCell(targets, -1, 1, " "))).toBe("Column 2 needs a name.");
    expect(gridProblem(withCell(targets, -1, 1, "Month"))).toBe("Two columns are called “Month”.");
    expect(gridProblem(emptyGrid())).toBe("Type at least one cell.");
    expect(gridProblem({ names: [], rows: [] })).toBe("A table needs a column.");
  });
  it("is CSV that any reader takes apart into the same cells", () => {
    const unit = fc.oneof(
      fc.constantFrom('"', ",", "\n", "'", " ", "a"),
      fc.string({ unit: "binary", maxLength: 1 }),
    );
    const cell = fc.array(unit, { maxLength: 6 }).map((signs) => signs.join("").replace(/\r/g, ""));
    fc.assert(
      fc.property(fc.array(fc.tuple(cell, cell), { maxLength: 8 }), (rows) => {
        const filled = rows.filter((cells) => cells.some((c) => c.trim() !== ""));
        const read = parse(gridToCsv({ names: ["a", "b"], rows }), { relaxColumnCount: true }) as string[][];
        expect(read).toEqual([["a", "b"], ...filled]);
      }),
    );
  });
  it("never grows past its limits", () => {
    const grid = grownTo(targets, 10_000, 10_000);
    expect([grid.rows.length, grid.names.length]).toEqual([GRID_LIMITS.rows, GRID_LIMITS.columns]);
    expect(new Set(grid.names).size).toBe(grid.names.length);
  });
});
