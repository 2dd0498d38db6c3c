import { expect, it } from "vitest";
import type { Scope } from "./expr";
import { tableMeant } from "./home-table";

const scope: Scope = {
  tables: [
    {
      name: "trips",
      columns: [
        { name: "riders", type: "number" },
        { name: "line", type: "text" },
      ],
    },
    {
      name: "plan",
      columns: [
        { name: "goal", type: "number" },
        { name: "line", type: "text" },
      ],
    },
  ],
  measures: [{ name: "m", formula: "", table: "trips" }],
  inputs: [],
};
const meant = (formula: string, table: string | null = "trips") => tableMeant(formula, scope, table, "m");

it("a formula tells its table where its names stand in one alone", () => {
  expect(meant("sum(goal)")).toBe("plan");
  expect(meant("sum(goal)", null)).toBe("plan");
  expect(meant("sum(riders)")).toBe("trips");
  // What stands in both says nothing, nor does what is in neither, or is not whole yet.
  expect(meant("count(line)")).toBe("trips");
  expect(meant("count(line)", null)).toBeNull();
  expect(meant("sum(nothing)")).toBe("trips");
  expect(meant("sum(goal")).toBe("trips");
  expect(meant("sum(goal) / sum(riders)")).toBe("trips");
});
