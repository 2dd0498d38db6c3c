import { describe, expect, it } from "vitest";
import { newMeasure, newVisual } from "../project/defaults";
import { emptyProject, type Project } from "../project/schema";
import { review } from "./index";

const measure = (name: string, formula: string) =>
  newMeasure({ id: name, name, label: `The ${name}`, table: null, formula });
const project: Project = {
  ...emptyProject("P"),
  measures: [measure("riders", "1"), measure("rate", "riders / 2"), measure("other", "3")],
};
const visual = newVisual({ id: "v", name: "V", kind: "donut", value: "rate" });
const settled = (of: string, holds: boolean | null) => ({
  measure: project.measures.find((m) => m.id === of) ?? project.measures[0],
  proof: { id: `proof of ${of}`, type: "equals" as const, value: 1, tolerance: 0, filters: [] },
  holds,
  text: "is 2, not 1; off by 1",
});

describe("the review of a visual", () => {
  it("finds the failed proof of a measure that stands behind the one it shows", () => {
    expect(review({ visual, project, proofs: [settled("riders", false)] })).toMatchObject([
      {
        id: "failed proof proof of riders",
        text: "A proof of The riders fails: is 2, not 1; off by 1.",
        place: { type: "measure", measure: { id: "riders" } },
      },
    ]);
  });

  it("finds nothing where proofs hold, are not settled, or are of measures that it does not show", () => {
    const proofs = [settled("riders", true), settled("rate", null), settled("other", false)];
    expect(review({ visual, project, proofs })).toEqual([]);
    expect(review({ visual, project, proofs: [] })).toEqual([]);
  });
});
