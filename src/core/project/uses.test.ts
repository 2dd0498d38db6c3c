import { expect, it } from "vitest";
import { edited } from "./edits";
import { emptyProject, inputSchema, measureSchema, type Project, tableSchema, visualSchema } from "./schema";
import { movedByInput } from "./uses";

function project(): Project {
  const table = tableSchema.parse({
    id: "t",
    name: "trips",
    rows: 3,
    source: { file: "trips.csv", separator: ",", encoding: "utf-8", header: true },
    columns: [{ name: "riders", reading: { type: "number" } }],
  });
  const measure = (id: string, name: string, formula: string) =>
    measureSchema.parse({ id, name, label: name, table: "trips", formula, format: {} });
  const visual = (id: string, more: object) =>
    visualSchema.parse({ id, name: id, kind: "donut", size: { width: 300, height: 200 }, ...more });
  return {
    ...edited(emptyProject("P"), { type: "add table", table }),
    measures: [
      measure("m1", "carried", "sum(riders)"),
      measure("m2", "attainment", "carried / :goal"),
      measure("m3", "twice", "attainment * 2"),
    ],
    inputs: ["goal", "constructor"].map((name) =>
      inputSchema.parse({ id: name, name, label: name, type: "number", value: 5, format: {} }),
    ),
    visuals: [
      visual("plain", { value: "m1" }),
      visual("direct", { value: "m2" }),
      visual("through", { value: "m3" }),
      visual("against", { value: "m1", target: { input: "goal" } }),
      visual("written", { value: "m1", title: "Against {goal}" }),
      visual("none", {}),
    ],
  };
}

it("finds the visuals that an input moves: by measures, through others, by a phrase and by a text", () => {
  expect(movedByInput(project(), "goal").map((v) => v.id)).toEqual([
    "direct",
    "through",
    "against",
    "written",
  ]);
});

it("finds none for an input that nothing uses, or that is not there", () => {
  expect(movedByInput(project(), "constructor")).toEqual([]);
  expect(movedByInput(project(), "gone")).toEqual([]);
});
