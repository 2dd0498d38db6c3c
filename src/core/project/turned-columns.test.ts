import { describe, expect, it } from "vitest";
import { proposedTurn, turnProblem } from "./turned-columns";

const number = { type: "number", decimal: "." } as never;
const column = (name: string, reading = number) => ({ name, reading, hidden: false });
const text = { type: "text" } as never;
const table = {
  name: "visits",
  columns: [
    column("quay", text),
    column("a"),
    column("b"),
    column("note", text),
    column("c"),
    column("d"),
    column("e"),
  ],
};

describe("columns that are turned into rows", () => {
  it("are proposed where numbers stand side by side", () => {
    expect(proposedTurn(table)).toEqual(["c", "d", "e"]);
    expect(proposedTurn({ columns: table.columns.slice(0, 3) })).toEqual([]);
    expect(proposedTurn({ columns: [] })).toEqual([]);
  });

  it("are refused with what to do where the new table would have no columns, or two of one name", () => {
    const problem = (columns: string[], names = "month", values = "visitors") =>
      turnProblem(table, { columns, names, values });
    expect(problem(["c", "D"])).toBeNull();
    expect(problem([])).toBe("Choose at least one column.");
    expect(problem(["c", "C"])).toContain("once only");
    expect(problem(["x"])).toContain("no column “x”");
    expect(problem(["c"], " ")).toContain("need a name");
    expect(problem(["c"], "m".repeat(101))).toContain("at most 100 characters");
    expect(problem(["c"], "m".repeat(100))).toBeNull();
    expect(problem(["c"], "Month", "month")).toContain("both are called “Month”");
    expect(problem(["c"], "NOTE")).toContain("“NOTE” already");
    expect(problem(["c"], "month", "d")).toContain("“d” already");
    // The name of a column that is turned is free again.
    expect(problem(["c", "d"], "c", "d")).toBeNull();
  });
});
