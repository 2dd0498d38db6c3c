import { describe, expect, it } from "vitest";
import { KINDS, type KindId } from "../../core/kinds";
import type { VisualData } from "../../core/rows/visual-data";
import { THEMES } from "../../core/scene/colour";
import { datumsOf } from "../../core/scene/datums";
import { type Datum, focusOf, type Scene } from "../../core/scene/marks";
import { sceneOf } from "../../core/view/picture";
import { casesOf, visualOf } from "./cases";
import { faults } from "./faults";
import { tornNumbers } from "./torn-numbers";

// While something is pointed at, the number in the middle is its own: what the tooltip says, part by part.

const SIZES = [
  { width: 400, height: 330 },
  { width: 160, height: 120 },
];
/** So many parts of a picture are pointed at. */
const MOST = 12;

const DIGITS = /[\d.]+/;
const numberIn = (text: string): number | null => {
  const plain = text.replaceAll(/[\u2009\u202f\u00a0,]/g, "");
  const found = DIGITS.exec(plain);
  return found ? Number(found[0]) : null;
};

/** The number in the middle of a picture, with the value that the tooltip leads with; null where none is drawn. */
function middle({ marks }: Scene): string | null {
  const text = marks.find((m) => m.type === "text" && m.id === "reading");
  return text?.type === "text" ? text.text : null;
}

/** Whether a text in the middle writes the value of a datum: as the tooltip does, or shorter. */
function isSame(text: string, { lines: [line] }: Datum): boolean {
  if (text === line.value || text === line.exact) return true;
  const [wanted, said] = [numberIn(line.exact ?? line.value), numberIn(text)];
  if (wanted === null || said === null) return false;
  const scale = /M$/.test(text) ? 1e6 : /k$/.test(text) ? 1e3 : /bn$/.test(text) ? 1e9 : 1;
  const decimals = /\.(\d+)/.exec(text)?.[1].length ?? 0;
  return Math.abs(said * scale - wanted) <= 0.51 * 10 ** -decimals * scale;
}

function wrongIn(id: KindId, name: string, data: VisualData, dials: object): string[] {
  const visual = visualOf(id, { ...dials, "reading.text": "{value}" });
  return SIZES.flatMap((size) => {
    const datums = datumsOf(sceneOf(visual, data, undefined, { size })).slice(0, MOST);
    return datums.flatMap(({ datum }) => {
      const focus = focusOf({ datum });
      if (!focus) return [];
      const scene = sceneOf(visual, data, undefined, { size, focus });
      const said = middle(scene);
      const found = [
        ...faults(scene, scene.background ?? THEMES[scene.theme].sheet),
        ...tornNumbers(scene),
        ...(said !== null && !isSame(said, datum)
          ? [`“${said}” in the middle, ${datum.lines[0].value} in the tooltip of ${datum.title}`]
          : []),
      ];
      return found.slice(0, 2).map((what) => `${name}, ${size.width} x ${size.height}: ${what}`);
    });
  });
}

/** The kinds that say in their middle what is pointed at. */
const SAYING = KINDS.filter((kind) => "picturesByFocus" in kind);

describe.each(SAYING.map((kind) => kind.id))("%s", (id) => {
  it("says in its middle what is pointed at, ring by ring, at its hard values", () => {
    const cases = casesOf(id);
    const wrong = cases.flatMap(({ name, data, dials }) => wrongIn(id, name, data, dials ?? {}));
    expect(cases.length).toBeGreaterThan(12);
    expect(wrong.slice(0, 12)).toEqual([]);
  });
});
