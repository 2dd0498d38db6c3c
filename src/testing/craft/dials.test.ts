import { describe, expect, it } from "vitest";
import { KINDS } from "../../core/kinds";
import type { Dial, DialValue, Part } from "../../core/kinds/anatomy/dial";
import type { Visual } from "../../core/project/schema";
import { THEMES } from "../../core/scene/colour";
import { sceneOf } from "../../core/view/picture";
import { COURSE, casesOf, visualOf } from "./cases";
import { faults } from "./faults";
import { sampleData } from "./sample-data";
import { miscoloured, unshown } from "./shown";
import { lies } from "./truth";

// Every dial at both its ends, and every pair of dials at their ends, in a drawing that is plain otherwise.

interface Setting {
  size: { width: number; height: number };
  theme: "light" | "night";
  finish: string;
}
const PLAIN: Setting = { size: { width: 360, height: 280 }, theme: "light", finish: "plain" };
/** Where pairs are tried besides: small and dark in dashes, and in a shaded finish. */
const OTHERS: Setting[] = [
  { size: { width: 200, height: 150 }, theme: "night", finish: "dashed" },
  { size: { width: 520, height: 240 }, theme: "light", finish: "embossed" },
];

/** The ends of a dial. */
function endsOf(dial: Dial): DialValue[] {
  switch (dial.type) {
    case "number":
      return [dial.min, dial.max];
    case "choice":
      return dial.options.map((o) => o.value);
    case "toggle":
      return [true, false];
    case "colour":
      return ["#7d8c55"];
    case "palette":
      return ["shoal"];
    case "template":
      return ["", "{value} of {target}"];
  }
}
// Colours that are chosen by hand are no faults of the kind: who sets an ink for labels answers for it.
const BY_HAND = new Set(["labels.colour", "frame.background"]);
const dialsOf = (parts: readonly Part[]) =>
  parts
    .flatMap((part) => part.dials.map((dial) => ({ key: `${part.id}.${dial.id}`, ends: endsOf(dial) })))
    .filter(({ key }) => !BY_HAND.has(key));

const dataOf = (id: string) => {
  if (id === "number") return [COURSE];
  const cases = casesOf(id as Parameters<typeof casesOf>[0]);
  const named = ["a plain value", "six categories", "four by four"];
  return named.flatMap((name) => cases.find((c) => c.name === name)?.data ?? []);
};

function wrongWith(
  id: string,
  dials: Visual["dials"],
  { size, theme, finish }: Setting = PLAIN,
  datas = dataOf(id),
): string[] {
  return datas.flatMap((data) => {
    const visual = visualOf(id as Parameters<typeof visualOf>[0], dials, { finish });
    const scene = sceneOf(visual, data, undefined, { size, theme });
    const found = [
      ...faults(scene, scene.background ?? THEMES[scene.theme].sheet),
      ...lies(visual, data, scene),
      ...unshown(visual, data, scene),
      ...miscoloured(visual, data, scene, { size, theme }),
    ];
    return found.length
      ? [`${finish} ${size.width} ${JSON.stringify(dials)}: ${found.slice(0, 2).join("; ")}`]
      : [];
  });
}

/**
 * Rows of settings in which every pair of ends of two dials stands together at least once, each chosen
 * greedily (D. M. Cohen et al., The AETG System, 1997).
 */
function covering(dials: { key: string; ends: DialValue[] }[]): Visual["dials"][] {
  const open = new Set<string>();
  const pair = (a: number, x: number, b: number, y: number) =>
    a < b ? `${a}.${x} ${b}.${y}` : `${b}.${y} ${a}.${x}`;
  for (const [a, one] of dials.entries())
    for (const [b, two] of dials.entries())
      if (a < b) for (const x of one.ends.keys()) for (const y of two.ends.keys()) open.add(pair(a, x, b, y));
  const rows: Visual["dials"][] = [];
  while (open.size > 0) {
    const [first, second] = [...open][0].split(" ").map((p) => p.split(".").map(Number));
    const row = new Map([first, second].map(([at, end]) => [at, end] as const));
    for (const [at, { ends }] of dials.entries()) {
      if (row.has(at)) continue;
      const gain = (end: number) => [...row].filter(([b, y]) => open.has(pair(at, end, b, y))).length;
      const best = [...ends.keys()].reduce((p, q) => (gain(q) > gain(p) ? q : p));
      row.set(at, best);
    }
    for (const [a, x] of row) for (const [b, y] of row) if (a < b) open.delete(pair(a, x, b, y));
    rows.push(Object.fromEntries([...row].map(([at, end]) => [dials[at].key, dials[at].ends[end]])));
  }
  return rows;
}

describe.each(KINDS.map((k) => [k.id, k] as const))("the dials of a %s", (id, kind) => {
  const dials = dialsOf(kind.parts);

  it("hold at both their ends", () => {
    const wrong = dials.flatMap(({ key, ends }) => ends.flatMap((end) => wrongWith(id, { [key]: end })));
    expect(wrong).toEqual([]);
  });

  it("hold in every pair of their ends", () => {
    const rows = covering(dials);
    expect(rows.length).toBeGreaterThan(5);
    expect(rows.flatMap((row) => wrongWith(id, row))).toEqual([]);
  });

  it.each(OTHERS)("hold in every pair of their ends, $finish, $theme, $size.width wide", (setting) => {
    expect(covering(dials).flatMap((row) => wrongWith(id, row, setting))).toEqual([]);
  });
});

describe("the openings of a gauge", () => {
  const openings = Array.from({ length: 24 }, (_, i) => i * 15).flatMap((start) =>
    Array.from({ length: 15 }, (_, i) => ({ "arc.start": start, "arc.sweep": 60 + i * 20 })),
  );
  it.each([PLAIN, ...OTHERS])("hold at every start and sweep, $finish, $size.width wide", (setting) => {
    expect(openings.flatMap((dials) => wrongWith("gauge", dials, setting)).slice(0, 10)).toEqual([]);
  });
});

describe("the baselines of lollipops", () => {
  const rising = [120, 40, -35, 80, 0, 12];
  // Below all values, at each of them, between them, and above all.
  const baselines = [-100, ...rising, -10, 60, 200];
  it.each(["up", "right"])("hold wherever they lie, stems %s", (direction) => {
    const wrong = [rising, rising.map((v) => v * 1e6)].flatMap((values) =>
      baselines.flatMap((at) => {
        const scale = values[0] / rising[0];
        const data = sampleData(values, { baseline: at * scale });
        return [PLAIN, ...OTHERS].flatMap((setting) =>
          wrongWith("lollipop", { "stem.direction": direction }, setting, [data]),
        );
      }),
    );
    expect(wrong).toEqual([]);
  });
});
