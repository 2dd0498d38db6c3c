import { describe, expect, it } from "vitest";
import { visualOf } from "@/testing/craft/cases";
import { madeTable, projectTable } from "@/testing/made-table";
import { parseIsoDate } from "../base/calendar";
import { newMeasure } from "../project/defaults";
import { edited } from "../project/edits";
import { emptyProject, type Project, type Visual } from "../project/schema";
import { meetingMends } from "./meeting-mends";

const day = (text: string) => parseIsoDate(text);
const TRIPS = madeTable("trips", {
  route: ["text", ["North", "South"]],
  crew: ["text", ["a", "b"]],
  sailed: ["date", ["2025-01-06", "2025-02-03"].map(day)],
  people: ["number", [60, 41]],
});
const PLAN = madeTable("plan", { route: ["text", ["North", "South"]], wanted: ["number", [50, 50]] });
const ORDERS = madeTable("orders", {
  placed: ["date", ["2025-01-06", "2025-02-03"].map(day)],
  paid: ["date", ["2025-01-07", "2025-02-04"].map(day)],
  price: ["number", [1, 2]],
});
const DAYS = madeTable("days", {
  sailed: ["date", ["2025-01-06", "2025-02-03"].map(day)],
  sold: ["number", [3, 4]],
});
const NOTES = madeTable("notes", { text: ["text", ["x"]], lines: ["number", [3]] });
const measure = (id: string, table: string, formula: string) =>
  newMeasure({ id, name: id, label: id, table, formula });
const PROJECT: Project = {
  ...emptyProject("P"),
  tables: [TRIPS, PLAN, ORDERS, NOTES].map(projectTable),
  measures: [
    measure("people", "trips", "sum(people)"),
    measure("wanted", "plan", "sum(wanted)"),
    measure("price", "orders", "sum(price)"),
    measure("lines", "notes", "sum(lines)"),
    ...["wanted", "price", "lines"].map((other) => ({
      ...measure(`people_by_${other}`, "trips", `people / ${other}`),
      table: null,
    })),
  ],
};
const both = (second: string, change: Partial<Visual>): [Visual, Project] => {
  const visual = visualOf("rounded bars", {}, { value: `people_by_${second}`, ...change });
  return [visual, { ...PROJECT, visuals: [visual] }];
};
const labels = (visual: Visual, project: Project) => meetingMends(visual, project)?.mends.map((m) => m.label);

describe("tables that do not meet in a split", () => {
  it("are offered the columns that both have, each of which makes the visual answer", () => {
    const [visual, project] = both("wanted", { split: { column: "crew" } });
    const told = meetingMends(visual, project);
    expect(told?.mends.map((m) => m.label)).toEqual(["Split by route"]);
    const mended = edited(project, told?.mends[0].edit as never);
    expect(mended.visuals[0].split).toEqual({ column: "route" });
    expect(meetingMends(mended.visuals[0], mended)).toBeNull();
  });

  it("are offered the name of the split for each date that can be meant", () => {
    const [visual, project] = both("price", { split: { column: "sailed", by: "month" } });
    const told = meetingMends(visual, project);
    expect(told?.mends.map((m) => m.label)).toEqual([
      "Call orders.placed “sailed”",
      "Call orders.paid “sailed”",
    ]);
    const mended = edited(project, told?.mends[1].edit as never);
    expect(mended.tables[2].columns.map((c) => c.name)).toEqual(["placed", "sailed", "price"]);
    expect(meetingMends(mended.visuals[0], mended)).toBeNull();
  });

  it("are offered a date by its months where the split had none", () => {
    const visual = visualOf("rounded bars", {}, { value: "per_day", split: { column: "crew" } });
    const project: Project = {
      ...PROJECT,
      tables: [TRIPS, DAYS].map(projectTable),
      measures: [
        measure("people", "trips", "sum(people)"),
        measure("sold", "days", "sum(sold)"),
        { ...measure("per_day", "trips", "people / sold"), table: null },
      ],
      visuals: [visual],
    };
    expect(meetingMends(visual, project)?.mends).toEqual([
      {
        label: "Split by sailed by month",
        edit: { type: "change visual", id: "v", change: { split: { column: "sailed", by: "month" } } },
      },
    ]);
  });

  it("are offered nothing that would not mend it, but the table at which it is mended", () => {
    const [visual, project] = both("lines", { split: { column: "crew" } });
    expect(meetingMends(visual, project)).toEqual({ mends: [], table: project.tables[3].id });
    // By what both have the split would answer; the series keeps the tables apart all the same.
    const [apart, of] = both("wanted", {
      split: { column: "crew" },
      series: { column: "sailed", by: "year" },
    });
    expect(labels(apart, of)).not.toContain("Split by route");
  });

  it("are told of a series as of a split", () => {
    const [visual, project] = both("wanted", { split: { column: "route" }, series: { column: "crew" } });
    expect(meetingMends(visual, project)?.mends).toEqual([
      {
        label: "Split by route",
        edit: { type: "change visual", id: visual.id, change: { series: { column: "route" } } },
      },
    ]);
  });

  it("that meet are not mended", () => {
    expect(meetingMends(...both("wanted", { split: { column: "route" } }))).toBeNull();
    expect(meetingMends(...both("wanted", { split: null }))).toBeNull();
  });
});
