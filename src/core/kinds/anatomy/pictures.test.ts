import { describe, expect, it } from "vitest";
import { visualOf } from "../../../testing/craft/cases";
import { CATEGORIES, keyAt, sampleData, VALUES } from "../../../testing/craft/sample-data";
import { picturedIn, pictureKey } from "../../rows/picture-key";
import { rowKey } from "../../rows/row-key";
import { plainRow } from "../../rows/visual-data";
import type { Mark } from "../../scene/marks";
import { type PictureOptions, sceneOf } from "../../view/picture";

const [FIRST, SECOND] = CATEGORIES;
const pictures = { [FIRST]: "icon:ship", [SECOND]: "p1" };
const design = { palettes: [], finishes: [], pictures: [{ id: "p1", name: "a", href: "data:image/png;,x" }] };
const size = { width: 420, height: 400 };

function marksOf(kind: Parameters<typeof visualOf>[0], dials = {}, options: PictureOptions = {}) {
  const visual = visualOf(kind, dials, { pictures });
  return sceneOf(visual, sampleData(VALUES), design, { size, ...options }).marks;
}
const starting = (marks: Mark[], id: string) => marks.filter((m) => m.id.startsWith(id));

describe("pictures in the centre", () => {
  it("are those of the row under the pointer, with its value under them", () => {
    for (const kind of ["donut", "progress ring", "radial bars"] as const) {
      const dials = { "ring.thickness": 8 };
      expect(starting(marksOf(kind, dials), "picture"), kind).toEqual([]);
      const icon = starting(marksOf(kind, dials, { focus: { row: keyAt(0) } }), "picture");
      expect(icon.map((m) => m.type)).toEqual(["icon"]);
      const marks = marksOf(kind, dials, { focus: { row: keyAt(1) } });
      const [picture] = starting(marks, "picture");
      const [reading] = marks.filter((m) => m.id === "reading");
      if (picture?.type !== "picture" || reading?.type !== "text") throw new Error(`${kind} lacks one`);
      expect(picture.href).toBe("data:image/png;,x");
      expect(picture.y + picture.height).toBeLessThan(reading.y - reading.size * 0.36);
      expect(
        starting(marksOf(kind, dials, { focus: { row: keyAt(2) } }), "picture"),
        "of a row without one",
      ).toEqual([]);
    }
  });

  it("stand for the whole where there is no split, and for measures whatever they are called", () => {
    const whole = plainRow(rowKey({ type: "whole" }), "Share on time", 0.8);
    const measure = plainRow(rowKey({ type: "measure", id: "m7" }), "Seats", 12);
    expect([pictureKey(whole), pictureKey(measure)]).toEqual(["", "m7"]);
    expect(picturedIn([whole, measure])).toEqual([
      { key: "", label: "the whole" },
      { key: "m7", label: "Seats" },
    ]);
    const visual = visualOf("progress ring", {}, { pictures: { "": "icon:ship" }, split: null });
    const data = { ...sampleData([0.8], { target: 1, splitLabel: null }), rows: [whole] };
    expect(starting(sceneOf(visual, data, design, { size }).marks, "picture")).toHaveLength(1);
    expect(
      starting(sceneOf(visual, data, design, { size: { width: 90, height: 80 } }).marks, "picture"),
    ).toEqual([]);
  });
});

describe("pictures in cells", () => {
  const filled = (marks: Mark[], row: number) => starting(marks, `cell:${keyAt(row)}`);
  const shown = (marks: Mark[], row: number) => starting(marks, `picture:${keyAt(row)}`);

  it("stand in each cell of their row, and in none of another", () => {
    const marks = marksOf("waffle");
    expect(filled(marks, 0).length).toBeGreaterThan(20);
    expect(shown(marks, 0)).toHaveLength(filled(marks, 0).length);
    expect(shown(marks, 1)).toHaveLength(filled(marks, 1).length);
    expect(shown(marks, 2)).toEqual([]);
  });

  it("take the place of the cell, and stand for what it stood for", () => {
    const marks = marksOf("waffle", { "cell.picture": "above" });
    expect(filled(marks, 0)).toEqual([]);
    const cells = filled(marksOf("waffle"), 0);
    expect(shown(marks, 0).map((m) => m.shows)).toEqual(cells.map((m) => m.shows));
    expect(filled(marks, 2).length).toBeGreaterThan(0);
  });

  it("leave the cell where a picture is gone, or would be a smear", () => {
    const gone = visualOf(
      "waffle",
      { "cell.picture": "above" },
      { pictures: { [FIRST]: "no longer there" } },
    );
    const marks = sceneOf(gone, sampleData(VALUES), design, { size }).marks;
    expect(filled(marks, 0).length).toBeGreaterThan(20);
    const small = marksOf("waffle", { "cell.picture": "above" }, { size: { width: 160, height: 120 } });
    expect(filled(small, 0).length).toBeGreaterThan(20);
  });
});
