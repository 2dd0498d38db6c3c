import { describe, expect, it } from "vitest";
import { checkFormula } from "./check";
import type { Scope } from "./expr";

const scope: Scope = {
  tables: [
    {
      name: "sailings",
      columns: [
        { name: "route", type: "text" },
        { name: "passengers", type: "number" },
        { name: "cancelled", type: "boolean" },
        { name: "date", type: "date" },
        { name: "left at", type: "timestamp" },
      ],
    },
    { name: "routes", columns: [{ name: "route", type: "text" }] },
  ],
  measures: [
    { name: "total_passengers", formula: "sum(passengers)", table: "sailings" },
    { name: "circle_a", formula: "circle_b + 1", table: "sailings" },
    { name: "circle_b", formula: "circle_a + 1", table: "sailings" },
    { name: "route_count", formula: "count(*)", table: "routes" },
  ],
  inputs: [{ name: "goal", type: "number" }],
};
const check = (formula: string, level: "row" | "group" = "group") =>
  checkFormula(formula, scope, "sailings", level);
const messages = (formula: string, level: "row" | "group" = "group") =>
  check(formula, level).problems.map((p) => p.message);

describe("checking", () => {
  it.each([
    ["sum(passengers) / count(*)", "number"],
    ["TOTAL_PASSENGERS / total(total_passengers)", "number"],
    ["case when total_passengers >= :goal then 'good' else 'poor' end", "text"],
    ["max(date) - min(date)", "number"],
    ["max(date) + 7", "date"],
    ['max("left at") > max(date)', "boolean"],
    ["count(*) filter (where route in ('a', 'b') and date >= date '2026-01-01')", "number"],
    ["least(total_passengers, :goal)", "number"],
    ["max(extract(month from date))", "number"],
    ["sum(cast(route as number))", "number"],
    ["nullif(count(*), 0)", "number"],
  ])("takes %s as %s", (formula, type) => {
    expect(messages(formula)).toEqual([]);
    expect(check(formula).type).toBe(type);
  });

  it("says that a bare column has many values, and how to wrap it", () => {
    const [problem] = check("passengers / 2").problems;
    expect(problem).toMatchObject({
      code: "level",
      start: 0,
      end: 10,
      message: "passengers has one value per row here: wrap it, for example avg(passengers).",
    });
    expect(problem.mends?.map((m) => m.text)).toEqual(["sum(passengers)", "avg(passengers)"]);
  });

  it("takes a bare name for a measure where a group has one value, and for a column where it has many", () => {
    const named: Scope = {
      ...scope,
      measures: [
        { name: "Passengers", formula: "sum(passengers)", table: "sailings" },
        { name: "route", formula: "count(distinct route)", table: "sailings" },
      ],
    };
    const of = (formula: string, self?: string) => checkFormula(formula, named, "sailings", "group", self);
    const both = of("passengers / sum(passengers) / count(route) * route");
    expect(both.problems).toEqual([]);
    expect(both.names.map((n) => ("measure" in n ? n.measure : `column ${n.column}`))).toEqual([
      "Passengers",
      "column passengers",
      "column route",
      "route",
    ]);
    // A measure that is called like its column means the column: it is no circle.
    expect(of("sum(passengers)", "passengers").problems).toEqual([]);
    expect(of("passengers", "Passengers").problems[0].message).toContain("wrap it");
    expect(checkFormula("passengers * 2", named, "sailings", "derived", "sailings.x").problems).toEqual([]);
  });

  it("asks an empty derived column for a column, and an empty measure for an aggregate", () => {
    const derived = checkFormula(" ", scope, "sailings", "derived", "sailings.x").problems;
    expect(derived.map((p) => p.message)).toEqual([
      "The formula is empty. It is computed for each row: begin with a column, for example route.",
    ]);
    expect(messages(" ")).toEqual(["The formula is empty. Begin with an aggregate, for example sum(…)."]);
  });

  it("offers the nearest name for columns, inputs and functions", () => {
    expect(check("sum(pasengers)").problems[0]).toMatchObject({
      start: 4,
      end: 13,
      mends: [{ text: "passengers" }],
    });
    expect(check(":gaol").problems[0].mends?.[0].text).toBe(":goal");
    expect(check("summ(passengers)").problems[0].mends?.[0].text).toBe("sum");
    expect(check("max(extract(yaer from date))").problems[0].mends?.[0].text).toBe("year");
  });

  it.each([
    ["average(passengers)", "avg(passengers)"],
    ["Mean(passengers)", "avg(passengers)"],
    ["DISTINCTCOUNT(route)", "count(distinct route)"],
    ["countif(passengers > 3)", "count(*) filter (where passengers > 3)"],
    ["countif(route, 'a')", "count(*) filter (where route = 'a')"],
    ["if(sum(passengers) > 3, 1, 0)", "case when sum(passengers) > 3 then 1 else 0 end"],
    ["iif(sum(passengers) > 3, 1)", "case when sum(passengers) > 3 then 1 end"],
    ["ifnull(sum(passengers), 0)", "coalesce(sum(passengers), 0)"],
    ["divide(sum(passengers), count(*))", "sum(passengers) / nullif(count(*), 0)"],
  ])("says how what is written from habit is written here: %s", (formula, mended) => {
    const [problem] = check(formula).problems;
    expect(problem.mends).toEqual([
      { start: 0, end: formula.length, label: `Write ${mended}`, text: mended },
    ]);
    expect(check(mended).problems).toEqual([]);
  });

  it("tells nothing of a habit where the arguments do not fit, nor of what is no habit", () => {
    for (const formula of ["average(passengers, 2)", "constructor(passengers)", "average(*)"])
      expect(check(formula).problems[0].mends?.[0].text ?? "").not.toMatch(/^avg\(/);
  });

  it("takes signs of other languages for what they mean, and says how they are written", () => {
    const { problems } = check("count(*) filter (where route == 'a' && passengers > 3)");
    expect(problems.map((p) => p.mends?.[0].text)).toEqual(["=", "and"]);
    const quoted = check('count(*) filter (where route = "it\'s")').problems[0];
    expect(quoted.message).toContain("A text stands in single quotes");
    expect(quoted.mends?.[0].text).toBe("'it''s'");
  });

  it("reports every problem, each at its place", () => {
    expect(check("sum(nope) + sum(route) + :what").problems.map((p) => [p.code, p.start])).toEqual([
      ["name", 4],
      ["type", 16],
      ["name", 25],
    ]);
  });

  it("never turns text into a number in silence", () => {
    expect(messages("sum(route)")[0]).toContain("sum takes a number, and this is a text");
    expect(messages("sum(passengers) = 'a'")[0]).toContain("compares a number with a text");
    expect(messages("max(date) = '2026-01-01'")[0]).toContain("date '2026-05-01'");
  });

  it("keeps the levels apart", () => {
    expect(messages("sum(sum(passengers))")[0]).toContain("each row is looked at alone");
    expect(messages("sum(total_passengers)")[0]).toContain("is a measure");
    expect(messages("total(total(sum(passengers)))")[0]).toContain("changes nothing");
    expect(messages("passengers + 1", "row")).toEqual([]);
    expect(messages("sum(passengers)", "row")[0]).toContain("aggregate");
  });

  it("shows a circle, and does not follow it for ever", () => {
    const problem = checkFormula("circle_b + 1", scope, "sailings", "group", "circle_a").problems[0];
    expect(problem.code).toBe("circle");
    expect(problem.message).toContain("circle_a → circle_b → circle_a");
  });

  it("says when no link leads to a table, and lists what a name could be", () => {
    expect(check("max(routes.route)").problems[0]).toMatchObject({ code: "name", start: 4 });
    expect(messages("max(routes.route)")[0]).toContain("No link leads from sailings to routes");
    const linked: Scope = {
      ...scope,
      tables: [
        ...scope.tables,
        { name: "ports", columns: [{ name: "town", type: "text" }] },
        { name: "crews", columns: [{ name: "town", type: "text" }] },
      ],
      links: [
        { table: "sailings", column: "route", to: "ports", key: "town" },
        { table: "sailings", column: "route", to: "crews", key: "town" },
      ],
    };
    const { problems } = checkFormula("max(town)", linked, "sailings");
    expect(problems[0].message).toContain("could be ports.town or crews.town");
    expect(problems[0].mends?.map((m) => m.text)).toEqual(["ports.town", "crews.town"]);
    expect(checkFormula("max(ports.town)", linked, "sailings").problems).toEqual([]);
  });

  it("lets a measure use one of another table", () => {
    expect(check("route_count / count(*)").problems).toEqual([]);
  });

  it("says how the longer forms are written", () => {
    expect(messages("max_by(passengers)")[0]).toBe("Write max_by(x, key).");
    expect(messages("percentile_cont(0.5)")[0]).toContain("within group (order by x)");
    expect(messages("percentile_cont(2) within group (order by passengers)")[0]).toContain(
      "a number from 0 to 1",
    );
    expect(messages("max(date_trunc('mont', date))")[0]).toContain("'month'");
    expect(check("max(date_trunc('mont', date))").problems[0].mends?.[0].text).toBe("'month'");
    expect(check("percentile_cont(:goal) within group (order by passengers)").problems).toEqual([]);
    expect(check("max_by(route, date) filter (where not cancelled)").type).toBe("text");
  });

  it("survives a sum of thousands of terms", () => {
    expect(check(Array(2400).fill("1").join("+")).problems.map((p) => p.code)).toContain("limit");
    expect(check(Array(900).fill("1").join("+")).problems).toEqual([]);
  });
});
