import { describe, expect, it } from "vitest";
import { fillTemplate } from "../base/template";
import { readResult } from "../rows/read-result";
import { newInput, newMeasure, newVisual } from "./defaults";
import { edited } from "./edits";
import { emptyProject, type Project } from "./schema";
import { nameInTemplates } from "./templates";
import { usesOfInput, usesOfMeasure } from "./uses";

const measure = (id: string, name: string) =>
  newMeasure({ id, name, label: name, table: "t", formula: "count(*)" });
const project: Project = {
  ...emptyProject("P"),
  measures: [measure("a", "riders"), measure("b", "value"), measure("c", "seats")],
  inputs: [newInput({ id: "i", name: "target", label: "Target", type: "number", value: 7 })],
  visuals: [
    newVisual({
      id: "v",
      name: "v",
      kind: "number",
      value: "a",
      title: "{measure}: {value} of {measure.value}, {input.target}",
      dials: { "reading.caption": "{seats}" },
    }),
  ],
};

describe("names in templates", () => {
  it("are told apart where a measure or an input is called like a name of the sentence", () => {
    expect(nameInTemplates("measure", "Value")).toBe("measure.Value");
    expect(nameInTemplates("measure", "riders")).toBe("riders");
    const column = (name: string, value: number) => ({ name, type: "number" as const, values: [value] });
    const data = readResult(
      project.visuals[0],
      project,
      {
        columns: [column("riders", 3), column("value", 5)],
        rows: 1,
        totals: { riders: 3, value: 5 },
        others: null,
        noMatch: null,
        places: [],
        crossed: null,
        unfiltered: [],
        leftWhole: [],
        atRest: null,
        unanswered: [],
        coarse: [],
        scanned: 1,
        ms: 0,
      },
      {},
    );
    expect(fillTemplate(data.title, data.names)).toBe("riders: 3 of 5, 7");
  });

  it("count as uses of the measure and the input that they write", () => {
    const ids = (id: string) => usesOfMeasure(project, id).visuals.map((v) => v.id);
    expect([ids("a"), ids("b"), ids("c")]).toEqual([["v"], ["v"], ["v"]]);
    expect(usesOfInput(project, "i").visuals.map((v) => v.id)).toEqual(["v"]);
    const untold = { ...project, visuals: [{ ...project.visuals[0], title: "{value} {target}", dials: {} }] };
    expect(usesOfMeasure(untold, "b").visuals).toEqual([]);
    expect(usesOfInput(untold, "i").visuals).toEqual([]);
  });

  it("follow a rename, also to and from a name of the sentence", () => {
    const renamed = edited(project, { type: "change measure", id: "b", change: { name: "boats" } });
    expect(renamed.visuals[0].title).toBe("{measure}: {value} of {boats}, {input.target}");
    const back = edited(renamed, { type: "change measure", id: "c", change: { name: "share" } });
    expect(back.visuals[0].dials["reading.caption"]).toBe("{measure.share}");
  });
});
