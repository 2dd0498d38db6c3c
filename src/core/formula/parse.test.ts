import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { MAX_DEPTH, parseFormula } from "./parse";
import type { Node } from "./tree";

/** The tree as text with brackets everywhere, so that a test shows what binds to what. */
function shape(node: Node): string {
  switch (node.kind) {
    case "literal":
      return JSON.stringify(node.value);
    case "name":
      return node.parts.join(".");
    case "input":
      return `:${node.name}`;
    case "unary":
      return `(${node.op} ${shape(node.arg)})`;
    case "binary":
      return `(${shape(node.left)} ${node.op} ${shape(node.right)})`;
    case "between":
      return `(${shape(node.arg)}${node.negated ? " not" : ""} between ${shape(node.low)} ${shape(node.high)})`;
    case "in":
      return `(${shape(node.arg)}${node.negated ? " not" : ""} in ${node.list.map(shape).join(" ")})`;
    case "isNull":
      return `(${shape(node.arg)} is${node.negated ? " not" : ""} null)`;
    case "call":
      return `${node.name}(${node.distinct ? "distinct " : ""}${node.star ? "*" : node.args.map(shape).join(", ")})${node.filter ? ` where ${shape(node.filter)}` : ""}`;
    default:
      return node.kind;
  }
}
const parse = (text: string) => {
  const { node, problems } = parseFormula(text);
  expect(problems).toEqual([]);
  return shape(node);
};

describe("the grammar", () => {
  it.each([
    ["1 + 2 * 3 - 4", "((1 + (2 * 3)) - 4)"],
    ["-a * b", "((- a) * b)"],
    ["not a = 1 and b or c", "(((not (a = 1)) and b) or c)"],
    ["a between 1 and 2 and b", "((a between 1 2) and b)"],
    ["a not in (1, 2) or b is not null", "((a not in 1 2) or (b is not null))"],
    [
      "count(*) filter (where x <= 3 and not cancelled) / nullif(count(*), 0)",
      "(count(*) where ((x <= 3) and (not cancelled)) / nullif(count(*), 0))",
    ],
    ["count(distinct vessel)", "count(distinct vessel)"],
    ['sailings."Any ""name"""', 'sailings.Any "name"'],
    ["'it''s' || :name", '("it\'s" || :name)'],
    ["SUM(Passengers) -- a comment\n /* and one more */ + 1", "(sum(Passengers) + 1)"],
    ["case when a then 1 else 2 end", "case"],
    ["extract(year from d)", "extract"],
    ["cast(a as number)", "cast"],
    ["percentile_cont(0.5) within group (order by x)", "percentile_cont(0.5)"],
    ["a like 'x!%%' escape '!'", "like"],
    ["a is not distinct from b", "isDistinct"],
    ["date '2026-05-01' + 3", "(20574 + 3)"],
  ])("reads %s", (text, expected) => {
    expect(parse(text)).toBe(expected);
  });

  it.each([
    ["", "The formula is empty", 0],
    ["sum(", "A value is missing", 4],
    ["sum(a", "The brackets of sum are not closed", 5],
    ["1 +", "A value is missing after “+”", 3],
    ["a b", "Something is missing before “b”", 2],
    ["a)", "This closing bracket has no opening one", 1],
    ["date '2026-02-30'", "is not a date", 5],
    ["'open", "has no closing", 0],
    ["case 1 end", "at least one “when", 7],
    ["a # b", "“#” has no meaning", 2],
    ["x in ()", "The list after “in” is empty", 6],
  ])("says what is wrong in %s", (text, message, start) => {
    const { problems } = parseFormula(text);
    expect(problems[0].message).toContain(message);
    expect(problems[0].start).toBe(start);
  });

  it("finds several problems in one pass", () => {
    expect(parseFormula("sum(a +) / count(,)").problems.length).toBeGreaterThanOrEqual(2);
  });

  it("bounds length and depth with a sentence instead of failing", () => {
    expect(parseFormula("1+".repeat(6000)).problems[0].code).toBe("limit");
    const deep = parseFormula(`${"(".repeat(MAX_DEPTH + 50)}1${")".repeat(MAX_DEPTH + 50)}`);
    expect(deep.problems.map((p) => p.code)).toEqual(["limit"]);
  });

  it("never throws, and keeps every place inside the text", () => {
    const piece = fc.constantFrom(
      "sum",
      "(",
      ")",
      ",",
      "a",
      "'",
      '"',
      ":g",
      "case",
      "when",
      "then",
      "end",
      "1.5",
      "+",
      "between",
      "and",
      "in",
      "not",
      "filter",
      "where",
      "is",
      "null",
      " ",
      "\n",
      "é",
      "🜁",
      ".",
      "--",
      "/*",
    );
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 30 }), (pieces) => {
        const text = pieces.join(" ");
        const { problems } = parseFormula(text);
        for (const p of problems) {
          expect(p.start).toBeGreaterThanOrEqual(0);
          expect(p.end).toBeLessThanOrEqual(text.length);
          expect(p.start).toBeLessThanOrEqual(p.end);
        }
      }),
      { numRuns: 600, seed: 11 },
    );
  });
});
