import { describe, expect, it } from "vitest";
import { KINDS, type KindId } from "../../core/kinds";
import { FINISHES } from "../../core/kinds/finishes";
import type { Scene } from "../../core/scene/marks";
import { sceneOf } from "../../core/view/picture";
import { COURSE, casesOf, visualOf } from "./cases";
import { markBox } from "./faults";

// The shapes of a picture fill what the heading leaves of its frame: each kind to its floor, at every size.

const SIZES = [
  [160, 120],
  [300, 220],
  [440, 330],
  [900, 600],
] as const;
const MOST_PADDING = 16;

/** The share of the frame under the heading that the shapes reach over, with their tracks. */
function covered({ width, height, marks }: Scene): number {
  const padding = Math.min(MOST_PADDING, 0.08 * Math.min(width, height) + 2);
  const heading = marks.flatMap((m) =>
    m.type === "text" && m.part === "heading" ? [m.y + m.size * 0.6] : [],
  );
  const top = Math.max(padding, ...heading);
  const boxes = marks.flatMap((m) => (m.type !== "text" && (m.surface || m.shows) ? [markBox(m)] : []));
  const across = Math.max(...boxes.map((b) => b.right)) - Math.min(...boxes.map((b) => b.left));
  const down = Math.max(...boxes.map((b) => b.bottom)) - Math.min(...boxes.map((b) => b.top));
  return (across * down) / ((width - 2 * padding) * (height - padding - top));
}

/** The least share in percent, for each of the sizes; a wide frame leaves a round shape its sides. */
const FLOORS: Record<KindId, Record<string, readonly [number, number, number, number]>> = {
  donut: { "six categories": [26, 44, 44, 54], "four by four": [27, 25, 46, 52] },
  "progress ring": { "a plain value": [48, 47, 55, 55], "six categories": [30, 46, 44, 55] },
  gauge: { "a plain value": [27, 35, 65, 70] },
  "progress bar": { "six categories": [55, 55, 54, 62] },
  lollipop: { "six categories": [37, 55, 70, 75] },
  "rounded bars": { "six categories": [37, 59, 70, 78], "four by four": [40, 44, 61, 74] },
  "capsule stack": { "six categories": [35, 59, 70, 78], "four by four": [33, 36, 56, 70] },
  "nested bars": { "six categories": [34, 27, 29, 54] },
  "radial bars": { "six categories": [30, 46, 44, 55] },
  rose: { "six categories": [25, 38, 44, 39] },
  waffle: { "a plain value": [41, 48, 55, 55], "six categories": [34, 16, 45, 54] },
  number: {},
};

describe.each(KINDS.map((k) => k.id))("%s", (id) => {
  it.each(FINISHES.map((f) => f.id))("fills its frame, finish %s", (finish) => {
    const found = Object.entries(FLOORS[id]).flatMap(([name, floors]) => {
      const data = casesOf(id).find((c) => c.name === name)?.data ?? COURSE;
      return SIZES.flatMap(([width, height], i) => {
        const scene = sceneOf(visualOf(id, {}, { finish }), data, undefined, { size: { width, height } });
        const share = Math.round(covered(scene) * 100);
        return share >= floors[i] ? [] : [`${name}, ${width} x ${height}: ${share} %, at least ${floors[i]}`];
      });
    });
    expect(found).toEqual([]);
  });
});
