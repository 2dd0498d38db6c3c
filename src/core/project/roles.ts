import type { Split } from "../plan/query";
import type { NumberSource, Order, Visual } from "./schema";

/** What a field of a role holds: it says how the field is chosen, and where measures and inputs are named. */
type FieldType =
  | "measure"
  | "measures"
  | "number"
  | "split"
  | "steps"
  | "zones"
  | "pictures"
  | "order"
  | "keep";

interface Field<T extends FieldType, V> {
  type: T;
  /** What it is called. */
  word: string;
  /** What a kind without the role is given. */
  none: V;
}
const field = <const T extends FieldType, V>(type: T, word: string, none: V): Field<T, V> => ({
  type,
  word,
  none,
});

/**
 * What a phrase of the sentence gives to a kind: the fields of a visual it stands in. A sentence keeps those
 * that its kind has not, for kinds that have them. How each is said stands in view/sentence.ts.
 */
export const ROLES = {
  value: { value: field("measure", "Measure", null) },
  split: { split: field("split", "Split", null), steps: field("steps", "Steps down", []) },
  series: {
    series: field("split", "Series", null),
    seriesOrder: field("order", "Order of the series", null),
  },
  more: { more: field("measures", "Further measures", []) },
  second: { second: field("measure", "Second value", null) },
  headSize: { headSize: field("measure", "Head size", null) },
  comparison: { comparison: field("number", "Comparison", null) },
  target: { target: field("number", "Target", null) },
  range: { minimum: field("number", "Minimum", null), maximum: field("number", "Maximum", null) },
  end: { maximum: field("number", "Maximum", null) },
  baseline: { baseline: field("number", "Baseline", null) },
  zones: { zones: field("zones", "Zones", []) },
  keep: { keep: field("keep", "Keep", null) },
  order: { order: field("order", "Order", { by: "split", order: "asc" } as Order) },
  pictures: { pictures: field("pictures", "Pictures", {}) },
} as const satisfies Record<string, { [K in keyof Visual]?: Field<FieldType, Visual[K]> }>;

/** The name of a role. */
export type RoleId = keyof typeof ROLES;

type UnionToIntersection<U> = (U extends U ? (u: U) => void : never) extends (i: infer I) => void ? I : never;
type Fields = UnionToIntersection<(typeof ROLES)[RoleId]>;
/** A field of a visual that a role stands in. */
export type RoleField = keyof Fields;
/** The fields of roles that hold what this type says. */
export type FieldOf<T extends FieldType> = {
  [K in RoleField]: Fields[K]["type"] extends T ? K : never;
}[RoleField];

/** Every field of every role. */
export const ROLE_FIELDS = Object.assign({}, ...Object.values(ROLES)) as Fields;

const fieldsOf = <T extends FieldType>(type: T) =>
  (Object.keys(ROLE_FIELDS) as RoleField[]).filter((f): f is FieldOf<T> => ROLE_FIELDS[f].type === type);

/** What the phrases and the rules of a visual take their numbers from, where they say one. */
export function numberSources(visual: Visual): NumberSource[] {
  const amounts = [...visual.zones.map((z) => z.to), ...visual.rules.map((r) => r.than)];
  return [
    ...fieldsOf("number").flatMap((f) => visual[f] ?? []),
    ...amounts.flatMap((a) => (typeof a === "object" && a !== null ? a : [])),
  ];
}

/** The numbers that stand for each row, where a visual has rows: what it runs against, starts from, or is ruled by. */
function numbersOfRows({ target, baseline, rules }: Visual): NumberSource[] {
  const limits = rules.flatMap(({ than }) => (typeof than === "object" ? than : []));
  return [target, baseline, ...limits].filter((source) => source !== null);
}

/** Whether a number of a visual's sentence is computed for each of its rows, and not one for all of them. */
export const isOfEach = (visual: Visual, source: NumberSource | null): source is { measure: string } =>
  visual.split !== null && source !== null && "measure" in source && source.over === undefined;

/** The ids of the measures that give each row a number of its own. */
export const ownNumbersOf = (visual: Visual): string[] =>
  numbersOfRows(visual).flatMap((source) => (isOfEach(visual, source) ? source.measure : []));

/** The splits that a visual's phrases name: its own, those below it, and that of its series. */
export const splitsOf = (visual: Pick<Visual, "split" | "steps" | "series">): Split[] =>
  [visual.split, ...visual.steps, visual.series].filter((split) => split !== null);

/** What the phrases of a visual put in order, and by what. */
export const ordersOf = (visual: Visual) => fieldsOf("order").flatMap((f) => visual[f] ?? []);

/** The ids of the measures of which a visual shows a value for each row, its own first. */
export function rowMeasuresOf(visual: Visual): string[] {
  const phrases = fieldsOf("measure").flatMap((f) => visual[f] ?? []);
  const lists = fieldsOf("measures").flatMap((f) => visual[f]);
  return [...phrases, ...lists, ...visual.rules.flatMap((r) => r.measure ?? [])];
}

/** The ids of the measures that rows and series are only put in order by. */
export const orderMeasuresOf = (visual: Visual): string[] =>
  ordersOf(visual).flatMap(({ by }) => (typeof by === "object" && "measure" in by ? by.measure : []));

/** The ids of the measures that a visual's phrases and rules name. */
export const measuresOf = (visual: Visual): string[] => [
  ...rowMeasuresOf(visual),
  ...orderMeasuresOf(visual),
  ...numberSources(visual).flatMap((s) => ("measure" in s ? s.measure : [])),
];
