import { describe, expect, it } from "vitest";
import { newMeasure, newVisual } from "./defaults";
import { edited } from "./edits";
import { freeMadeName } from "./made-names";
import { emptyProject, type Project, type Visual } from "./schema";

const measure = (id: string, label: string) =>
  newMeasure({ id, name: id, label, table: "trips", formula: "count(*)" });
const visual = (id: string, name: string, more: Partial<Visual> = {}) =>
  newVisual({ id, name, kind: "donut", value: "cost", split: { column: "route" }, ...more });
const project = (...visuals: Visual[]): Project => ({
  ...emptyProject("P"),
  measures: [measure("cost", "Repair cost"), measure("strikes", "Strikes")],
  visuals,
});
const namesAfter = (from: Project, change: Partial<Visual>) =>
  edited(from, { type: "change visual", id: "a", change }).visuals.map((v) => v.name);

describe("the name of a visual", () => {
  it("is made from its sentence, and told apart by its kind, then by a number", () => {
    const name = (taken: string[], more: Partial<Visual> = {}) =>
      freeMadeName(visual("a", "", more), project(), taken);
    expect(name([])).toBe("Repair cost by route");
    expect(name([], { title: "{measure}" })).toBe("Repair cost");
    expect(name([], { split: { column: "routes.home_port" } })).toBe("Repair cost by home port");
    expect(name([], { split: { column: "on", by: "month" } })).toBe("Repair cost by month");
    expect(name(["repair cost by route"])).toBe("Repair cost by route, donut");
    expect(name(["Repair cost by route", "Repair cost by route, donut"])).toBe(
      "Repair cost by route, donut 2",
    );
  });

  it("follows what the sentence says, and the label of its measure", () => {
    const made = project(visual("a", "Repair cost by route"));
    expect(namesAfter(made, { value: "strikes" })).toEqual(["Strikes by route"]);
    expect(namesAfter(made, { split: null })).toEqual(["Repair cost"]);
    const renamed = edited(made, { type: "change measure", id: "cost", change: { label: "Cost" } });
    expect(renamed.visuals[0].name).toBe("Cost by route");
    const second = project(visual("a", "Repair cost by route 2"), visual("b", "Strikes by route"));
    expect(namesAfter(second, { value: "strikes" })).toEqual(["Strikes by route, donut", "Strikes by route"]);
    const ofKind = project(visual("a", "Repair cost by route, donut"), visual("b", "Repair cost by route"));
    expect(namesAfter(ofKind, { kind: "rose" })[0]).toBe("Repair cost by route, rose");
  });

  it("stays once it is typed, and where nothing that it says has changed", () => {
    const typed = project(visual("a", "Where money goes"));
    expect(namesAfter(typed, { value: "strikes" })).toEqual(["Where money goes"]);
    const made = project(visual("a", "Repair cost by route 2"));
    expect(namesAfter(made, { dials: { "ring.hole": 0.5 } })).toEqual(["Repair cost by route 2"]);
    expect(namesAfter(made, { value: "strikes", name: "Mine" })).toEqual(["Mine"]);
    expect(namesAfter(made, { value: null })).toEqual(["Repair cost by route 2"]);
  });
});
