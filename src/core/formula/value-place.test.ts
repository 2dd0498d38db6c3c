import { describe, expect, it } from "vitest";
import type { Scope } from "./expr";
import { valuePlaceAt } from "./value-place";

const scope: Scope = {
  tables: [
    {
      name: "trips",
      columns: [
        { name: "line", type: "text" },
        { name: "riders", type: "number" },
      ],
    },
    {
      name: "lines",
      columns: [
        { name: "key", type: "text" },
        { name: "the town", type: "text" },
      ],
    },
  ],
  measures: [],
  inputs: [],
  links: [{ table: "trips", column: "line", to: "lines", key: "key" }],
};
/** The place at the bar in a formula. */
const at = (text: string) => valuePlaceAt(text.replace("|", ""), text.indexOf("|"), scope, "trips");

describe("a text that stands for a value", () => {
  it.each([
    ["count(*) filter (where line = 'N|", "trips", "line"],
    ["count(*) filter (where LINE = '|')", "trips", "line"],
    ["count(*) filter (where line <> 'N|' and riders > 3)", "trips", "line"],
    ["count(*) filter (where line in ('N', 'S|", "trips", "line"],
    ["count(*) filter (where not line not in ('N', '|'))", "trips", "line"],
    ["count(*) filter (where \"the town\" = 'x|')", "lines", "the town"],
    ["count(*) filter (where lines.key = 'x|')", "lines", "key"],
  ])("is told by what it is compared with: %s", (text, table, column) => {
    expect(at(text)).toMatchObject({ table, column });
  });

  it.each([
    "count(*) filter (where riders = '1|",
    "upper('a|')",
    "line = |",
    "'a' = '|'",
    "nope = '|",
    "like ('a|",
  ])("is nothing elsewhere: %s", (text) => {
    expect(at(text)).toBeNull();
  });

  it("begins after its quote, whether it is closed or not", () => {
    expect(at("line = 'No|")).toMatchObject({ start: 7, from: 8, end: 10 });
    expect(at("line = 'No|rth' and true")).toMatchObject({ from: 8, end: 14 });
  });
});
