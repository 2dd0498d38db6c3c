import { describe, expect, it } from "vitest";
import { madeTable, scopeColumns } from "../../testing/made-table";
import { runQueries } from "../engine/run";
import { querySchema } from "../plan/query";
import { checkFormula } from "./check";
import type { Scope } from "./expr";
import { linksProblem, pathsBetween } from "./links";

const table = madeTable("t", { k: ["text", ["a", "b", "a"]], n: ["number", [1, 2, 3]] });
const scopeWith = (measures: [string, string][], derived: [string, string][] = []): Scope => ({
  tables: [
    {
      name: "t",
      columns: [
        ...scopeColumns(table),
        ...derived.map(([name, formula]) => ({ name, formula, type: "null" as const })),
      ],
    },
  ],
  measures: measures.map(([name, formula]) => ({ name, formula, table: "t" })),
  inputs: [],
});
const answer = (scope: Scope, measures: string[], splits: object[] = []) =>
  runQueries([querySchema.parse({ measures: measures.map((id) => ({ id })), splits })], {
    scope,
    inputs: {},
    tables: [{ ...table, computed: undefined }],
  })[0];

describe("measures as a graph", () => {
  const chain = (length: number): [string, string][] =>
    Array.from({ length }, (_, i) => [`m${i}`, i === 0 ? "sum(n)" : `(m${i - 1} + m${i - 1}) / 2`]);

  it("check and compute each measure once, however often it is used", () => {
    const scope = scopeWith(chain(300));
    const checked = checkFormula("(m298 + m298) / 2", scope, "t", "group", "m299");
    expect(checked.problems).toEqual([]);
    expect(answer(scope, ["m299"], [{ column: "k" }])).toMatchObject({
      columns: [{ values: ["a", "b"] }, { values: [4, 2] }],
      totals: { m299: 6 },
    });
    // All of them at once, and a text that is no measure.
    expect(
      answer(
        scope,
        Array.from({ length: 50 }, (_, i) => `m${i * 6}`),
      ),
    ).toMatchObject({ rows: 1, totals: { m0: 6, m294: 6 } });
    expect(checkFormula("m299 * 2", scope, "t").problems).toEqual([]);
  });

  it("take a thousand measures, and long ones on top of each other", () => {
    expect(answer(scopeWith(chain(1000)), ["m999"])).toMatchObject({ totals: { m999: 6 } });
    const deep = scopeWith(
      Array.from({ length: 100 }, (_, i) => [`m${i}`, i === 0 ? "sum(n)" : `m${i - 1}${" + 1".repeat(900)}`]),
    );
    expect(answer(deep, ["m99"])).toMatchObject({ totals: { m99: 6 + 99 * 900 } });
  });

  it("show a circle of any size, and say it of all that stands on it", () => {
    const size = 1000;
    const scope = scopeWith([
      ...Array.from({ length: size }, (_, i): [string, string] => [
        `c${i}`,
        `c${(i + 1) % size} + c${(i + 1) % size}`,
      ]),
      ["on_it", "c5 + 1"],
      ["sound", "sum(n)"],
    ]);
    for (const name of ["c0", "c500", "on_it"]) {
      const [problem] = checkFormula(
        scope.measures.find((m) => m.name === name)?.formula ?? "",
        scope,
        "t",
        "group",
        name,
      ).problems;
      expect(problem.code).toBe("circle");
      expect(problem.message).toMatch(/in a circle: c\d+ → .* 990 more → .*c\d+\.$/);
    }
    expect(checkFormula("sum(n)", scope, "t", "group", "sound").problems).toEqual([]);
    expect(
      checkFormula("self + 1", scopeWith([["self", "self + 1"]]), "t", "group", "self").problems[0].message,
    ).toContain("self → self");
  });

  it("check a text in the place of what the scope says, with all that stands on it", () => {
    const scope = scopeWith([
      ["a", "sum(n)"],
      ["b", "a + 1"],
      ["c", "b + 1"],
    ]);
    expect(checkFormula("c + 1", scope, "t", "group", "a").problems[0].message).toContain("a → c → b → a");
    expect(checkFormula("c + 1", scope, "t").problems).toEqual([]);
    expect(checkFormula("sum(n)", scope, "t", "group", "a").problems).toEqual([]);
    expect(checkFormula("max(k)", scope, "t", "group", "a")).toMatchObject({ type: "text", problems: [] });
  });

  it("check derived columns so as well", () => {
    const derived = Array.from({ length: 200 }, (_, i): [string, string] => [
      `d${i}`,
      i === 0 ? "n" : `(d${i - 1} + d${i - 1}) / 2`,
    ]);
    const scope = scopeWith([["all", "sum(d199)"]], derived);
    expect(checkFormula("sum(d199)", scope, "t", "group", "all").problems).toEqual([]);
    expect(answer(scope, ["all"])).toMatchObject({ totals: { all: 6 } });
    const round = scopeWith(
      [],
      [
        ["x", "y + 1"],
        ["y", "x + 1"],
      ],
    );
    expect(checkFormula("y + 1", round, "t", "derived", "t.x").problems[0].message).toBe(
      "These derived columns use each other in a circle: t.x → t.y → t.x.",
    );
  });

  it("say which names in a text mean a measure and which a column", () => {
    const scope = scopeWith([
      ["n", "sum(n)"],
      ["k count", "count(k)"],
    ]);
    expect(checkFormula('"k count" / sum(t.n) + sum("n")', scope, "t").names).toEqual([
      { start: 0, end: 9, measure: "k count" },
      { start: 16, end: 19, table: "t", column: "n" },
      { start: 27, end: 30, table: "t", column: "n" },
    ]);
  });

  it("fold what hangs on constants alone, and refuse texts without end", () => {
    const scope = scopeWith([
      ["text", "'x'"],
      ...Array.from({ length: 40 }, (_, i): [string, string] => [
        `t${i}`,
        `${i === 0 ? "text" : `t${i - 1}`} || ${i === 0 ? "text" : `t${i - 1}`}`,
      ]),
    ]);
    expect(answer(scope, ["t39"])).toMatchObject({
      code: "limit",
      message: expect.stringContaining("more than 100,000 characters"),
    });
    const replaced = scopeWith([
      [
        "r",
        "replace(replace(replace('aaaaaaaaaa', 'a', 'aaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaa'), 'a', 'aaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaa'), 'a', 'aaaaaaaaaaaaaaaaaaaaaaaaaaaaa')",
      ],
    ]);
    expect(answer(replaced, ["r"])).toMatchObject({ code: "limit" });
    expect(answer(scopeWith([["c", "concat(max(k), 'x')"]]), ["c"])).toMatchObject({ totals: { c: "bx" } });
  });
});

describe("links in plenty", () => {
  it("are searched in time that grows with their number: diamonds without end, circles among them", () => {
    const diamonds = Array.from({ length: 50 }, (_, i) => [
      { table: `a${i}`, column: "l", to: `b${i}`, key: "k" },
      { table: `a${i}`, column: "r", to: `c${i}`, key: "k" },
      { table: `b${i}`, column: "x", to: `a${i + 1}`, key: "k" },
      { table: `c${i}`, column: "x", to: `a${i + 1}`, key: "k" },
    ]).flat();
    expect(pathsBetween(diamonds, "a0", "a50").length).toBeGreaterThan(1);
    expect(pathsBetween(diamonds, "a0", "nowhere")).toEqual([]);
    expect(linksProblem(diamonds)).toContain("more than one way");
    const all = Array.from({ length: 14 }, (_, i) =>
      Array.from({ length: 14 }, (_, k) => ({ table: `t${i}`, column: `c${k}`, to: `t${k}`, key: "k" })),
    ).flat();
    expect(linksProblem(all)).toContain("circle");
    expect(pathsBetween(all, "t0", "t13").length).toBeGreaterThan(1);
  });
});
