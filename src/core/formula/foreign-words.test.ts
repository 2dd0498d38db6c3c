import { expect, it } from "vitest";
import { checkFormula } from "./check";
import type { Scope } from "./expr";

const scope: Scope = {
  tables: [
    {
      name: "trips",
      columns: [
        { name: "riders", type: "number" },
        { name: "line", type: "text" },
        { name: "day", type: "date" },
        // Called like words of SQL.
        { name: "rank", type: "number" },
        { name: "last", type: "number" },
      ],
    },
  ],
  measures: [{ name: "m", formula: "sum(riders)", table: "trips" }],
  inputs: [],
};
const check = (formula: string) => checkFormula(formula, scope, "trips", "group");
const problems = (formula: string) => check(formula).problems.map((p) => p.message);

it.each([
  ["sum(riders) over (partition by line)", "over", "total(…)"],
  ["lag(riders) over (order by day)", "lag", "filter (where"],
  ["sum(riders) filter (where day > current_date - interval '7 days')", "interval", "d + 7"],
  ["riders::text", "::", "cast(x as number)"],
  ["last(riders)", "last", "max_by(x, d)"],
  ["select sum(riders) from trips", "select", "the value alone"],
  ["sum(riders) where line = 'a'", "where", "filter (where y"],
  ["sum(riders where line = 'a')", "where", "filter (where y"],
  ["rank() over (order by m)", "rank", "puts its rows in order"],
])(
  "a word of SQL is named with what there is instead, and nothing that follows from it: %s",
  (formula, word, instead) => {
    const found = problems(formula);
    expect(found).toHaveLength(1);
    expect(found[0]).toContain(`Formulas have no “${word}”`);
    expect(found[0]).toContain(instead);
  },
);

it("words of SQL that are columns here, or stand where formulas have them, are none", () => {
  for (const formula of [
    "sum(rank)",
    "max(last)",
    "cast(sum(riders) as text)",
    "extract(year from max(day))",
  ])
    expect(problems(formula)).toEqual([]);
  expect(problems("cast(sum(riders) as int)")).toEqual([
    "The type must be number, text, boolean, date or timestamp.",
  ]);
});

it("an aggregate of a measure and one of an aggregate say the same, and send nobody from one to the other", () => {
  const [{ message, mends, start, end }] = check("max(m) + 1").problems;
  expect(message).toContain("no second step over groups");
  expect([start, end]).toEqual([0, 6]);
  expect(mends).toEqual([{ start: 0, end: 6, label: "Write m alone", text: "m" }]);
  expect(problems("max(sum(riders))")[0]).toContain("no second step over groups");
  expect(problems("sum(riders) filter (where m > 1)")[0]).toContain("outside of aggregates");
  for (const formula of ["max(m)", "max(sum(riders))", "sum(riders) filter (where m > 1)"])
    expect(problems(formula).join()).not.toMatch(/measure of its own/);
});
