import { afterAll, describe, expect, it } from "vitest";
import { KINDS } from "../../core/kinds";
import { FINISHES } from "../../core/kinds/finishes";
import { THEMES } from "../../core/scene/colour";
import { sceneOf } from "../../core/view/picture";
import { casesOf, visualOf } from "./cases";
import { faults } from "./faults";
import { misnamed } from "./named";
import { miscoloured, unshown } from "./shown";
import { tornNumbers } from "./torn-numbers";
import { lies } from "./truth";

const SIZES = [
  { width: 96, height: 72 },
  { width: 160, height: 120 },
  { width: 320, height: 240 },
  { width: 1200, height: 700 },
];
// `npm run craft` draws in every finish; a check takes three.
const ALL = process.env.CRAFT === "all";
const finishes = ALL ? FINISHES : FINISHES.filter((f) => ["plain", "embossed", "dashed"].includes(f.id));

let drawn = 0;
let failed = 0;
afterAll(() => console.log(`${drawn.toLocaleString("en")} renderings, ${failed} failures`));

describe.each(KINDS.map((k) => [k.id, k] as const))("%s", (id) => {
  it.each(finishes.map((f) => [f.name, f.id] as const))("at its hard values, finish %s", (_, finish) => {
    const wrong: string[] = [];
    const cases = casesOf(id);
    expect(cases.length).toBeGreaterThanOrEqual(12);
    for (const { name, data, dials, look } of cases)
      for (const size of SIZES)
        for (const theme of ["light", "night"] as const) {
          const visual = visualOf(id, dials, { finish, ...look });
          const scene = sceneOf(visual, data, undefined, { size, theme });
          drawn++;
          const found = [
            ...faults(scene, scene.background ?? THEMES[scene.theme].sheet),
            ...tornNumbers(scene),
            ...lies(visual, data, scene),
            ...unshown(visual, data, scene),
            ...miscoloured(visual, data, scene, { size, theme }),
            ...misnamed(data, scene),
          ];
          if (scene.description.length < 4) found.push("no description");
          if (found.length) {
            failed++;
            wrong.push(`${name}, ${size.width} x ${size.height}, ${theme}: ${found.slice(0, 3).join("; ")}`);
          }
        }
    expect(wrong.slice(0, 12)).toEqual([]);
  });
});
