import { isColour } from "../../scene/colour";
import type { Handle, Track } from "../../scene/marks";
import type { ChoiceDial, Dial, DialKey, DialValue, NumberDial, Part } from "./dial";

/** For each choice dial of some parts, the function that reads it; together they read all of them. */
type ChoiceReaders<P extends Part> =
  P extends Part<infer I, infer D>
    ? D extends ChoiceDial<infer K, infer Option>
      ? (key: `${I}.${K}`) => Option
      : never
    : never;
type All<Union> = (Union extends unknown ? (each: Union) => void : never) extends (all: infer Both) => void
  ? Both
  : never;

/** Where a handle stands, and the track along which the dial runs from its least to its largest number. */
export interface HandlePlace {
  x: number;
  y: number;
  track: (from: number, to: number) => Track;
}

/**
 * The dials of a visual as its kind reads them: those set by hand where they are valid, then those of the
 * finish, the kind's defaults elsewhere. It knows the names of the dials of the parts `P`, so that a misspelt
 * one does not build.
 */
export interface Style<in P extends Part = Part> {
  /** What a dial stands at, kept within its bounds. */
  readonly number: (key: DialKey<P, "number">) => number;
  readonly choice: All<ChoiceReaders<P>>;
  readonly toggle: (key: DialKey<P, "toggle">) => boolean;
  readonly template: (key: DialKey<P, "template">) => string;
  readonly palette: (key: DialKey<P, "palette">) => string;
  /** The colour set by hand or by the finish, or the automatic one. */
  readonly colour: (key: DialKey<P, "colour">, automatic: string) => string;
  /** The handle that turns a dial of numbers: bounds, step and words are the dial's own. */
  readonly handle: (key: DialKey<P, "number">, place: HandlePlace) => Handle;
  /**
   * The same dials read by the names of a part that only some kinds have; null where this kind has not
   * all of them.
   */
  readonly within: <Q extends Part>(part: Q) => Style<Q> | null;
}

const tables = new WeakMap<readonly Part[], Map<string, Dial>>();

function tableOf(parts: readonly Part[]): Map<string, Dial> {
  let table = tables.get(parts);
  if (!table) {
    table = new Map(parts.flatMap((p) => p.dials.map((dial) => [`${p.id}.${dial.id}`, dial] as const)));
    tables.set(parts, table);
  }
  return table;
}

/** Whether a value is one that a dial can have. */
function fits(dial: Dial, value: DialValue | undefined): boolean {
  switch (dial.type) {
    case "number":
      return typeof value === "number" && Number.isFinite(value);
    case "choice":
      return dial.options.some((o) => o.value === value);
    case "toggle":
      return typeof value === "boolean";
    case "template":
    case "palette":
      return typeof value === "string";
    case "colour":
      return typeof value === "string" && isColour(value);
  }
}

/** A style whose dials are asked for by any name: what the panel of dials and the checks read. */
export interface OpenStyle extends Style {
  readonly has: (key: string) => boolean;
  /** What a dial stands at. Throws where the kind has no such dial. */
  readonly value: (key: string) => DialValue;
}

/** The style of some parts; `layers` come in the order of their weight, the heaviest first. */
export function styleFrom(parts: readonly Part[], ...layers: Record<string, DialValue>[]): OpenStyle {
  const dials = tableOf(parts);
  const standing = (key: string): DialValue => {
    const dial = dials.get(key);
    if (!dial) throw new Error(`${key} is no dial of this kind`);
    for (const layer of layers) if (fits(dial, layer[key])) return layer[key];
    return dial.default;
  };
  // A drawing asks for the same dials for every row.
  const remembered = <T>(find: (key: string) => T) => {
    const known = new Map<string, T>();
    return (key: string): T => {
      let found = known.get(key);
      if (found === undefined) {
        found = find(key);
        known.set(key, found);
      }
      return found;
    };
  };
  const value = remembered(standing);
  const read = <T extends DialValue>(type: Dial["type"]) =>
    remembered((key): T => {
      if (dials.get(key)?.type !== type) throw new Error(`${key} is no ${type} dial of this kind`);
      return value(key) as T;
    });
  const readNumber = read<number>("number");
  const readColour = read<string>("colour");
  const numberOf = remembered((key) => {
    const found = readNumber(key);
    const { min, max } = dials.get(key) as NumberDial;
    return Math.min(max, Math.max(min, found));
  });
  const withins = new Map<Part, boolean>();
  const style: OpenStyle = {
    value,
    has: (key) => dials.has(key),
    number: numberOf,
    choice: read<string>("choice"),
    toggle: read<boolean>("toggle"),
    template: read<string>("template"),
    palette: read<string>("palette"),
    colour: (key, automatic) => readColour(key) || automatic,
    handle: (key, { x, y, track }) => {
      const now = numberOf(key);
      const { min, max, step, label, unit } = dials.get(key) as NumberDial;
      const gap = unit === "" || unit === "°" ? "" : " ";
      const text = `${label.toLowerCase()} ${now}${gap}${unit}`;
      const edit = { type: "dial", dial: key } as const;
      return {
        id: key,
        edit,
        label,
        value: now,
        from: min,
        to: max,
        step,
        text,
        x,
        y,
        track: track(min, max),
      };
    },
    within: <Q extends Part>(p: Q) => {
      let hasAll = withins.get(p);
      if (hasAll === undefined) {
        hasAll = p.dials.every((dial) => dials.has(`${p.id}.${dial.id}`));
        withins.set(p, hasAll);
      }
      return hasAll ? (style as unknown as Style<Q>) : null;
    },
  };
  return style;
}
