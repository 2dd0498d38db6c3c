import { describe, expect, it } from "vitest";
import { visualOf } from "../../../testing/craft/cases";
import { sampleData } from "../../../testing/craft/sample-data";
import type { Visual } from "../../project/schema";
import { sceneOf } from "../../view/picture";
import type { KindId } from "..";

const COUNT = 40;
/** High enough for the line at the foot, and too low for all rows. */
const HEIGHTS = Array.from({ length: 50 }, (_, i) => 200 + i * 5);

/** How many rows a picture of this height draws, and how many its foot says it leaves out. */
function counted(kind: KindId, dials: Visual["dials"], height: number) {
  const data = sampleData(Array.from({ length: COUNT }, (_, i) => 1000 - i * 7));
  const { marks } = sceneOf(visualOf(kind, dials, { size: { width: 320, height } }), data);
  const drawn = new Set(marks.flatMap((m) => (m.shows ? [m.shows.row] : []))).size;
  const note = marks.flatMap((m) =>
    m.type === "text" ? (/^and (\d+) more/.exec(m.text)?.slice(1) ?? []) : [],
  );
  return { height, drawn, left: note.map(Number) };
}

describe("the foot of a frame", () => {
  it.each<[KindId, Visual["dials"]]>([
    ["rounded bars", { "bar.direction": "right" }],
    ["lollipop", { "stem.direction": "right" }],
    ["progress bar", {}],
  ])("counts every row in %s that does not fit, the one that gave way to the line too", (kind, dials) => {
    const wrong = HEIGHTS.map((height) => counted(kind, dials, height)).filter(
      ({ drawn, left }) => left.length !== 1 || drawn + left[0] !== COUNT,
    );
    expect(wrong).toEqual([]);
  });
});
