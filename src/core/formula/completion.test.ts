import { describe, expect, it } from "vitest";
import { completionsFor, helpAt } from "./completion";
import type { Scope } from "./expr";

const scope: Scope = {
  tables: [
    {
      name: "sailings",
      columns: [
        { name: "route", type: "text" },
        { name: "left at", type: "timestamp" },
        { name: "full", type: "boolean", formula: "seats = 0" },
      ],
    },
    { name: "routes", columns: [{ name: "distance", type: "number" }] },
    { name: "alone", columns: [{ name: "x", type: "number" }] },
  ],
  measures: [{ name: "carried", formula: "sum(passengers)", table: "sailings" }],
  inputs: [{ name: "goal", type: "number" }],
  links: [{ table: "sailings", column: "route", to: "routes", key: "route" }],
};
const texts = (level: "row" | "group") => completionsFor(scope, "sailings", level).map((c) => c.text);

describe("completion", () => {
  it("offers own, derived and linked columns, measures, inputs, functions and forms", () => {
    expect(texts("group")).toEqual(
      expect.arrayContaining([
        "route",
        '"left at"',
        "full",
        "routes.distance",
        "carried",
        ":goal",
        "sum()",
        "round()",
        "total()",
        "current_date",
      ]),
    );
    expect(texts("group")).not.toContain("alone.x");
  });

  it("leaves out of a derived column what cannot stand there", () => {
    for (const not of ["carried", ":goal", "sum()", "total()", "filter (where )"])
      expect(texts("row")).not.toContain(not);
    expect(texts("row")).toEqual(expect.arrayContaining(["route", "routes.distance", "upper()", "is null"]));
  });

  it("says what stands where the pointer rests", () => {
    const formula = "round(carried / :goal) + max(routes.distance)";
    const at = (word: string) => helpAt(formula, formula.indexOf(word) + 1, scope, "sailings");
    expect(at("carried")).toMatchObject({ title: "carried: measure", help: "sum(passengers)" });
    expect(at("goal")).toMatchObject({ title: ":goal: input, number" });
    expect(at("round")?.title).toContain("round(x");
    expect(at("distance")).toMatchObject({ title: "routes.distance: number" });
    expect(helpAt("full", 0, scope, "sailings")?.help).toContain("seats = 0");
    expect(helpAt("nothing here", 3, scope, "sailings")).toBeNull();
  });
});
