import { describe, expect, it } from "vitest";
import { categoryKey } from "../rows/row-key";
import { datumsOf, datumText, middleOf, tableOf } from "./datums";
import type { Datum, Mark } from "./marks";

const said = (title: string, value: string): Datum => ({
  key: categoryKey(title),
  title,
  lines: [{ label: "riders", value }],
});
const rect = (x: number, datum: Datum, surface?: "data" | "track"): Mark => ({
  type: "rect",
  id: `r${x}`,
  part: "bar",
  x,
  y: 10,
  width: 20,
  height: 10,
  radii: [0, 0, 0, 0],
  datum,
  surface,
});

describe("what a scene says mark by mark", () => {
  it("is said once, at the shape that stands for the value, in the order it is drawn", () => {
    const [a, b] = [said("North", "12"), said("South", "7")];
    const marks = [
      rect(0, a, "track"),
      rect(40, a, "data"),
      rect(80, b, "data"),
      rect(120, { ...a }, "data"),
    ];
    expect(datumsOf({ marks })).toEqual([
      { datum: a, x: 50, y: 15 },
      { datum: b, x: 90, y: 15 },
    ]);
  });
  it("keeps two rows of one name apart", () => {
    const [text, nothing] = [said("null", "1"), { ...said("null", "1"), key: categoryKey(null) }];
    expect(datumsOf({ marks: [rect(0, text), rect(30, nothing)] })).toHaveLength(2);
  });
  it("is in the middle of a piece of a ring", () => {
    const sector: Mark = {
      type: "sector",
      id: "s",
      part: "ring",
      cx: 100,
      cy: 100,
      inner: 40,
      outer: 60,
      start: 0,
      end: 180,
      inset: 0,
      corners: [0, 0, 0, 0],
    };
    const [x, y] = middleOf(sector);
    expect(x).toBeCloseTo(150);
    expect(y).toBeCloseTo(100);
  });
  it("is a table with a column for each thing that is said, empty where a row does not say it", () => {
    const south = {
      ...said("South", "7"),
      lines: [
        { label: "riders", value: "7" },
        { label: "share", value: "37 %" },
      ],
    };
    const table = tableOf([said("North", "12"), south].map((datum) => ({ datum, x: 0, y: 0 })));
    expect(table).toEqual({
      columns: ["riders", "share"],
      rows: [
        { title: "North", cells: ["12", ""], datum: said("North", "12") },
        { title: "South", cells: ["7", "37 %"], datum: south },
      ],
    });
    expect(datumText(south)).toBe("South, riders 7, share 37 %");
  });
});
