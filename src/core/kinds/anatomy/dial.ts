/** What a dial can be set to. */
export type DialValue = number | string | boolean;

interface Named<Id extends string> {
  id: Id;
  label: string;
}
/** A number between two bounds, both reached in steps. */
export interface NumberDial<Id extends string = string> extends Named<Id> {
  type: "number";
  min: number;
  max: number;
  step: number;
  unit: string;
  default: number;
}
/** One of a few named options. */
export interface ChoiceDial<Id extends string = string, Option extends string = string> extends Named<Id> {
  type: "choice";
  options: readonly { value: Option; label: string }[];
  default: Option;
}
/** On or off. */
export interface ToggleDial<Id extends string = string> extends Named<Id> {
  type: "toggle";
  default: boolean;
}
/** A text with `{names}`. */
export interface TemplateDial<Id extends string = string> extends Named<Id> {
  type: "template";
  default: string;
}
/** A colour as #rrggbb; empty means the automatic one. */
export interface ColourDial<Id extends string = string> extends Named<Id> {
  type: "colour";
  default: "";
}
/** A palette by its id; empty means the automatic one. */
export interface PaletteDial<Id extends string = string> extends Named<Id> {
  type: "palette";
  default: "";
}

/** One control of a part. */
export type Dial<Id extends string = string> =
  | NumberDial<Id>
  | ChoiceDial<Id>
  | ToggleDial<Id>
  | TemplateDial<Id>
  | ColourDial<Id>
  | PaletteDial<Id>;

/** A named piece of a kind's anatomy with its dials. Marks name the part they belong to. */
export interface Part<Id extends string = string, D extends Dial = Dial> {
  id: Id;
  label: string;
  dials: readonly D[];
  /** Whether its dials belong to what one visual says of its numbers, and so to no finish. */
  says?: true;
}

/** The keys ("part.dial") of the dials of some parts, of one type where that is named. */
export type DialKey<P extends Part, T extends Dial["type"] = Dial["type"]> =
  P extends Part<infer I, infer D>
    ? D extends { type: T; id: infer K extends string }
      ? `${I}.${K}`
      : never
    : never;

/** A part, with the types of its id and its dials kept. */
export const part = <const Id extends string, const D extends Dial>(
  id: Id,
  label: string,
  dials: readonly D[],
  more: { says?: true } = {},
): Part<Id, D> => ({ id, label, dials, ...more });

/** A dial of a number: its least, its most and its step, in a unit that is shown. */
export const number = <const Id extends string>(
  id: Id,
  label: string,
  [min, max, step]: readonly [number, number, number],
  unit: string,
  standard: number,
): NumberDial<Id> => ({ type: "number", id, label, min, max, step, unit, default: standard });

/** A dial of options, each `[value, label]`. */
export const choice = <const Id extends string, const Option extends string>(
  id: Id,
  label: string,
  options: readonly (readonly [Option, string])[],
  standard: NoInfer<Option>,
): ChoiceDial<Id, Option> => ({
  type: "choice",
  id,
  label,
  options: options.map(([value, text]) => ({ value, label: text })),
  default: standard,
});

/** A dial that is on or off. */
export const toggle = <const Id extends string>(
  id: Id,
  label: string,
  standard: boolean,
): ToggleDial<Id> => ({
  type: "toggle",
  id,
  label,
  default: standard,
});

/** A dial of a text with `{names}`. */
export const template = <const Id extends string>(
  id: Id,
  label: string,
  standard: string,
): TemplateDial<Id> => ({ type: "template", id, label, default: standard });

/** A dial of a colour, automatic at first. */
export const colour = <const Id extends string>(id: Id, label: string): ColourDial<Id> => ({
  type: "colour",
  id,
  label,
  default: "",
});

/** A dial of a palette, automatic at first. */
export const palette = <const Id extends string>(id: Id, label: string): PaletteDial<Id> => ({
  type: "palette",
  id,
  label,
  default: "",
});

/** What a value past the end of its scale does. */
export const pastDial = (label: string, end: string) =>
  choice(
    "past",
    label,
    [
      ["hold", `hold at ${end}`],
      ["lap", "second lap"],
      ["extend", "extend the scale"],
    ],
    "hold",
  );

/** How rows lie on their tracks that each have a target of their own. */
export const againstDial = () =>
  choice(
    "against",
    "Own targets",
    [
      ["own", "each full at its own"],
      ["one", "one scale, a tick each"],
    ],
    "own",
  );

/** How the ends of an arc are shaped. */
export const capsDial = (standard: "flat" | "round") =>
  choice(
    "caps",
    "Ends",
    [
      ["flat", "flat"],
      ["round", "round"],
    ],
    standard,
  );

/** Where bars grow to. */
export const directionDial = (standard: "right" | "up") =>
  choice(
    "direction",
    "Direction",
    [
      ["right", "to the right"],
      ["up", "upwards"],
    ],
    standard,
  );
