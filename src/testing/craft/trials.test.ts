import { describe, expect, it } from "vitest";
import { KINDS } from "../../core/kinds";
import { THEMES } from "../../core/scene/colour";
import { sceneOf } from "../../core/view/picture";
import { trialsOf } from "../../core/view/trials";
import { COURSE, casesOf, visualOf } from "./cases";
import { faults } from "./faults";
import { misnamed } from "./named";
import { miscoloured, unshown } from "./shown";
import { lies } from "./truth";

// What a visual may meet one day, and what a filter leaves of its rows, is drawn as cleanly as what it has.

const SIZE = { width: 320, height: 240 };

describe.each(KINDS.map((k) => k.id))("%s", (id) => {
  const named = ["a plain value", "six categories", "long names", "averages", "four by four"];
  const cases = casesOf(id).filter((c) => named.includes(c.name));
  const datas = id === "number" ? [{ name: "a course", data: COURSE, dials: {} }, ...cases] : cases;
  it.each(["plain", "embossed", "dashed"])("holds in its trials and under filters, finish %s", (finish) => {
    const wrong = datas.flatMap(({ name, data, dials }) => {
      const split = data.splitLabel === null && id !== "number" ? null : { column: "route" };
      const visual = visualOf(id, dials, { finish, split });
      const filtered = [1, 2, 3].map((n) => ({
        label: `only ${n}`,
        data: { ...data, rows: data.rows.filter((_, i) => i % (n + 1) === 0) },
      }));
      return [...trialsOf(visual, data), ...filtered].flatMap(({ label, data: now }) => {
        const scene = sceneOf(visual, now, undefined, { size: SIZE });
        const found = [
          ...faults(scene, scene.background ?? THEMES[scene.theme].sheet),
          ...lies(visual, now, scene),
          ...unshown(visual, now, scene),
          ...miscoloured(visual, now, scene, { size: SIZE }),
          ...misnamed(now, scene),
        ];
        return found.length ? [`${name}, ${label}: ${found.slice(0, 2).join("; ")}`] : [];
      });
    });
    expect(wrong.slice(0, 8)).toEqual([]);
  });
});
