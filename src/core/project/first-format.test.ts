import { expect, it } from "vitest";
import { NEW_FORMAT, type NumberFormat, PERCENT_FORMAT } from "../base/number-format";
import { newMeasure } from "./defaults";
import { formatAfter } from "./first-format";
import { emptyProject, type Project } from "./schema";

const columns = ["riders", "seats", "late"].map((name) => ({
  name,
  reading: { type: name === "late" ? "boolean" : "number" },
  hidden: false,
}));
const project = {
  ...emptyProject("P"),
  tables: [{ id: "t", name: "trips", rows: 1, columns, derived: [], source: { file: "" } }],
  measures: [
    newMeasure({ id: "carried", name: "carried", label: "C", table: "trips", formula: "sum(riders)" }),
  ],
} as unknown as Project;
const style = (formula: string, was = "", format: NumberFormat = NEW_FORMAT) =>
  formatAfter(
    newMeasure({ id: "m", name: "m", label: "M", table: "trips", formula: was, format }),
    formula,
    project,
  ).style;

it.each([
  ["sum(riders) / total(sum(riders))", "percent"],
  ["carried / total(carried)", "percent"],
  ["count(*) filter (where late) / nullif(count(late), 0)", "percent"],
  ["round(sum(riders) filter (where late) / sum(riders), 3)", "percent"],
  ["sum(riders) / sum(seats)", "number"],
  ["sum(riders) / count(*)", "number"],
  ["100 * carried / total(carried)", "number"],
  ["avg(riders)", "number"],
  ["sum(riders) / total(sum(seats))", "number"],
  ["sum(", "number"],
])("%s begins as %s", (formula, wanted) => expect(style(formula)).toBe(wanted));

it("goes back where the formula is no share any more, and leaves what somebody set", () => {
  const share = "carried / total(carried)";
  const percent: NumberFormat = { ...NEW_FORMAT, style: "percent" };
  expect(style(`100 * ${share}`, share, percent)).toBe("number");
  expect(style("sum(riders) / sum(seats)", "sum(riders)", percent)).toBe("percent");
  expect(style("carried", share, PERCENT_FORMAT)).toBe("percent");
  expect(style(share, "", { ...NEW_FORMAT, suffix: " of all" })).toBe("number");
});
