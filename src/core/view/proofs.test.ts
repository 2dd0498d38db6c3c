import { describe, expect, it } from "vitest";
import { madeTable } from "../../testing/made-table";
import { runQueries } from "../engine/run";
import { querySchema } from "../plan/query";
import { QueryError } from "../plan/query-error";
import { scopeOf } from "../project/names";
import {
  emptyProject,
  measureSchema,
  type Project,
  type Proof,
  tableSchema,
  visualSchema,
} from "../project/schema";
import { measuresBehind, type ProofOutcome, proofOutcome, proofQuery } from "./proofs";

const table = madeTable("trips", {
  route: ["text", ["a", "b", "c", null]],
  seats: ["number", [10, 10, 10, 0]],
  riders: ["number", [5, 12, 8, null]],
});
const measure = (name: string, formula: string, format: object = {}) =>
  measureSchema.parse({ id: name, name, label: name, table: "trips", formula, format });
const project: Project = {
  ...emptyProject("P"),
  tables: [
    tableSchema.parse({
      id: "t",
      name: "trips",
      rows: 4,
      source: { file: "" },
      columns: [
        { name: "route", reading: { type: "text" } },
        { name: "seats", reading: { type: "number" } },
        { name: "riders", reading: { type: "number" } },
      ],
    }),
  ],
  measures: [
    measure("load", "sum(riders) / sum(seats)", { style: "percent" }),
    measure("riders_total", "sum(riders)"),
    measure("counted", "sum(riders) filter (where route is not null)"),
    measure("twice", "load * 2"),
  ],
};
function outcome(id: string, proof: Proof): ProofOutcome {
  const found = project.measures.find((m) => m.id === id) as Project["measures"][number];
  const query = proofQuery(found, proof, project);
  const answer =
    query &&
    runQueries([querySchema.parse(query)], { tables: [table], inputs: {}, scope: scopeOf(project) })[0];
  return proofOutcome(
    found,
    proof,
    answer instanceof QueryError ? { error: answer.message } : answer,
    project,
  );
}

describe("proofs", () => {
  it("hold limits for every group of a split, and say which lies furthest outside", () => {
    const between = { id: "p", type: "between" as const, from: 0, to: 1, split: { column: "route" } };
    expect(outcome("load", between)).toEqual({ holds: false, text: "b is 120\u2009%, above 100\u2009%" });
    expect(outcome("load", { ...between, to: 1.2 })).toEqual({ holds: true, text: "passes for all 3" });
    expect(outcome("load", { ...between, from: 0.9, to: 1 }).text).toContain(
      "a is 50\u2009%, below 90\u2009%; 3 of 3 are outside",
    );
    expect(outcome("load", { ...between, split: null }).holds).toBe(true);
    expect(outcome("load", { ...between, from: null, to: null }).holds).toBeNull();
    expect(outcome("load", { ...between, split: { column: "nowhere" } }).text).toContain(
      "no column “nowhere”",
    );
  });

  it("compare with a value under filters, within a tolerance", () => {
    const equals = {
      id: "p",
      type: "equals" as const,
      value: 12,
      tolerance: 0,
      filters: [{ column: "route", in: ["b"] }],
    };
    expect(outcome("riders_total", equals).holds).toBe(true);
    expect(outcome("riders_total", { ...equals, value: 12.4, tolerance: 0.5 }).holds).toBe(true);
    expect(outcome("riders_total", { ...equals, value: 14 }).text).toBe("is 12.00, not 14.00; off by 2.00");
    expect(outcome("riders_total", { ...equals, filters: [{ column: "route", in: ["nowhere"] }] })).toEqual({
      holds: false,
      text: "riders_total has no value here",
    });
  });

  it("compare with the total of another measure", () => {
    const total = { id: "p", type: "same total" as const, measure: "counted", tolerance: 0 };
    expect(outcome("riders_total", total).holds).toBe(true);
    expect(outcome("load", total).text).toContain("not counted");
    expect(outcome("riders_total", { ...total, measure: null }).holds).toBeNull();
  });

  it("reach visuals through the measures behind what they show", () => {
    const visual = visualSchema.parse({
      id: "v",
      name: "V",
      kind: "gauge",
      value: "twice",
      target: { measure: "counted" },
    });
    expect([...measuresBehind(visual, project)].sort()).toEqual(["counted", "load", "twice"]);
  });
});
