import { expect, it } from "vitest";
import type { Scope } from "./expr";
import { tablesMeant, tableTold } from "./home-table";

const number = (...names: string[]) => names.map((name) => ({ name, type: "number" as const }));
const text = (...names: string[]) => names.map((name) => ({ name, type: "text" as const }));

const scope: Scope = {
  tables: [
    { name: "trips", columns: [...number("riders", "delay"), ...text("line", "vessel")] },
    { name: "vessels", columns: [...number("seats"), ...text("vessel")] },
    { name: "plan", columns: [...number("goal"), ...text("line")] },
  ],
  measures: [
    { name: "riders_sum", formula: "sum(riders)", table: "trips" },
    { name: "late", formula: "sum(delay)", table: "trips" },
    { name: "planned", formula: "sum(goal)", table: "plan" },
    // Called like a column of another table.
    { name: "seats", formula: "sum(seats)", table: "trips" },
    { name: "m", formula: "", table: "trips" },
  ],
  inputs: [{ name: "wanted", type: "number" }],
  links: [{ table: "trips", column: "vessel", to: "vessels", key: "vessel" }],
};
const told = (formula: string, table: string | null = "trips", self = "m") =>
  tableTold(formula, scope, table, self);

it("a formula tells its table where its names stand in one alone", () => {
  expect(told("sum(goal)")).toBe("plan");
  expect(told("sum(goal)", null)).toBe("plan");
  expect(told("sum(riders)", "plan")).toBe("trips");
  expect(told("sum(riders * seats)", "plan")).toBe("trips");
});

it("a column that links lead to is meant of the table that has it", () => {
  expect(told("sum(seats)")).toBe("vessels");
  expect(told("sum(vessels.seats)")).toBe("vessels");
});

it("names that stand in two tables leave the one that is there, and are told as both", () => {
  expect(told("count(distinct line)")).toBe("trips");
  expect(told("count(distinct line)", "plan")).toBe("plan");
  expect(told("count(distinct line)", "vessels")).toBe("vessels");
  expect(told("count(distinct line)", null)).toBeNull();
  expect(tablesMeant("count(distinct line)", scope, "m")).toEqual({
    says: "tables",
    tables: ["trips", "plan"],
  });
  expect(tablesMeant("count(distinct vessel)", scope, "m")).toEqual({
    says: "tables",
    tables: ["trips", "vessels"],
  });
});

it("a formula without names, of nothing known, or that is not whole yet tells nothing", () => {
  for (const formula of [
    "count(*)",
    ":wanted",
    "1",
    "sum(nothing)",
    "sum(goal",
    "sum(goal) / sum(riders)",
    "",
  ])
    for (const table of ["trips", "plan", null]) expect(told(formula, table), formula).toBe(table);
});

it("measures put together have the table that all of them read, or none", () => {
  expect(told("riders_sum / late", "plan")).toBe("trips");
  expect(told("riders_sum / planned", "trips")).toBeNull();
  expect(told("riders_sum / planned", "vessels")).toBeNull();
  expect(told("riders_sum / :wanted", "plan")).toBe("trips");
  expect(told("riders_sum / count(*)", "plan")).toBe("trips");
});

it("a measure may be called like the column that it is computed from", () => {
  expect(told("sum(seats)", "trips", "seats")).toBe("vessels");
  expect(told("sum(goal)", "trips", "goal")).toBe("plan");
});
