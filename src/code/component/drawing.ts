import type { Value } from "@/core/base/value";
import { formulaKey, type KnownFormula } from "@/core/formula/expr";
import type { CategoryPlaces, Result, ResultColumn, SplitTotals } from "@/core/plan/query";
import { knowFormulas } from "@/core/project/names";
import type { Project, Visual } from "@/core/project/schema";
import { sceneOf } from "@/core/view/picture";
import { toVisualData } from "@/core/view/visual-data";
import { type SvgNode, sceneTree } from "@/render/svg-tree";

// What a component that was taken out draws with: the build bundles it once for each kind, with
// that kind alone
// (scripts/build-embed.mjs), and the component carries it (component-code.ts).

/** What a component says of its visual. */
export interface Spec {
  /** The parts of the document that it needs, without rows. */
  project: Project;
  visual: Visual;
  formulas: [string, KnownFormula][];
  /** The columns of its rows: the splits first, then the measures. */
  columns: Pick<ResultColumn, "name" | "type">[];
  splits: 0 | 1 | 2;
  /** The measures of which the value over all rows is needed. */
  totals: string[];
  /** For each split the categories as they stood, in their order: colours go by it. */
  places: { of: number; keys: Value[]; at: (number | null)[] }[];
}

/** What a component is given. */
export interface Given {
  rows: Readonly<Record<string, Value>>[];
  /** The row of all others, where some were put together. */
  other?: Readonly<Record<string, Value>> | null;
  /** Values over all rows, where they are not the sums of those of the rows. */
  totals?: Readonly<Record<string, Value>>;
  width: number;
  height: number;
  theme: "light" | "night";
}

const valueIn = (record: Readonly<Record<string, Value>> | undefined, name: string): Value =>
  record && Object.hasOwn(record, name) ? (record[name] ?? null) : null;

/** Whether the value of a measure over all rows is the sum of its values over each. */
function addsUp({ project, formulas }: Spec, name: string): boolean {
  const measure = project.measures.find((m) => m.name === name);
  const known = measure && formulas.find(([key]) => key === keyOf(measure));
  return known?.[1].addsUp === "yes";
}
const keyOf = ({ formula, table, name }: Project["measures"][number]) =>
  formulaKey(formula, table, "group", name);

const summed = (values: Value[]): Value => {
  const numbers = values.filter((v): v is number => typeof v === "number");
  return numbers.length === 0 ? null : numbers.reduce((sum, n) => sum + n, 0);
};

/** Where categories stand: where they stood when it was taken out, and new ones after those. */
function placesOf({ of, keys, at }: Spec["places"][number], now: Value[]): CategoryPlaces {
  if (of === 0) return { of, at: now.map(() => null) };
  let next = of;
  return {
    of: of + now.filter((key) => key !== null && !keys.includes(key)).length,
    at: now.map((key) => {
      const known = keys.indexOf(key);
      if (known >= 0) return at[known];
      return key === null ? null : next++;
    }),
  };
}

/** The rows of a component as the answer that the visual is drawn from. */
function resultOf(spec: Spec, { rows, other = null, totals = {} }: Given): Result {
  const { columns, splits } = spec;
  const all = other ? [...rows, other] : rows;
  const measures = columns.slice(splits);
  const values = (name: string, some = all) => some.map((row) => valueIn(row, name));
  const whole = (name: string): Value => {
    if (Object.hasOwn(totals, name)) return totals[name] ?? null;
    if (all.length === 1) return valueIn(all[0], name);
    return addsUp(spec, name) ? summed(values(name)) : null;
  };
  const keys = columns.slice(0, splits).map((column, at) => {
    const found = values(column.name, rows);
    const once = found.filter((v, i) => found.indexOf(v) === i);
    return at === 0 && other ? [...once, null] : once;
  });
  const sideOf = (at: number): SplitTotals => ({
    column: columns[at].name,
    type: columns[at].type,
    keys: keys[at],
    others: at === 0 && other ? { at: keys[0].length - 1, groups: 2 } : null,
    noMatch: null,
    totals: Object.fromEntries(
      measures.map(({ name }) => [
        name,
        keys[at].map((key) =>
          addsUp(spec, name)
            ? summed(
                all.filter((row) => valueIn(row, columns[at].name) === key).map((row) => valueIn(row, name)),
              )
            : null,
        ),
      ]),
    ),
  });
  return {
    columns: columns.map((column) => ({ ...column, values: values(column.name) })),
    rows: all.length,
    totals: Object.fromEntries(spec.totals.map((name) => [name, whole(name)])),
    others: other && splits === 1 ? { row: all.length - 1, groups: 2 } : null,
    noMatch: null,
    crossed:
      splits === 2
        ? {
            splits: [sideOf(0), sideOf(1)],
            at: all.map((row): [number, number] => [
              keys[0].indexOf(valueIn(row, columns[0].name)),
              keys[1].indexOf(valueIn(row, columns[1].name)),
            ]),
          }
        : null,
    places: spec.places.map((place, at) => placesOf(place, keys[at] ?? [])),
    coarse: [],
    unfiltered: [],
    leftWhole: [],
    atRest: null,
    unanswered: [],
    scanned: 0,
    ms: 0,
  };
}

const known = new WeakSet<Spec>();
let drawn = 0;

/** A visual as an SVG tree, over the rows that its component was given. */
export function draw(spec: Spec, given: Given): SvgNode {
  if (!known.has(spec)) knowFormulas(spec.project, spec.formulas);
  known.add(spec);
  const { project, visual } = spec;
  const { width, height, theme } = given;
  const data = toVisualData(visual, project, resultOf(spec, given));
  const scene = sceneOf(visual, data, project, { size: { width, height }, theme });
  return sceneTree(scene, { prefix: `c${++drawn}-` });
}
