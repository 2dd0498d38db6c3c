export type DialValue = number | string | boolean;

/**
 * One control of a part. A dial of type template takes text with `{names}`; an empty colour or palette means
 * the automatic one.
 */
export type Dial = { id: string; label: string } & (
  | { type: "number"; min: number; max: number; step: number; unit: string; default: number }
  | { type: "choice"; options: { value: string; label: string }[]; default: string }
  | { type: "toggle"; default: boolean }
  | { type: "template"; default: string }
  | { type: "colour"; default: "" }
  | { type: "palette"; default: "" }
);

/** A named piece of a kind's anatomy with its dials. Marks name the part they belong to. */
export interface Part {
  id: string;
  label: string;
  dials: Dial[];
}

export const number = (
  id: string,
  label: string,
  min: number,
  max: number,
  step: number,
  unit: string,
  standard: number,
): Dial => ({
  type: "number",
  id,
  label,
  min,
  max,
  step,
  unit,
  default: standard,
});
export const choice = (id: string, label: string, options: [string, string][], standard: string): Dial => ({
  type: "choice",
  id,
  label,
  options: options.map(([value, text]) => ({ value, label: text })),
  default: standard,
});
export const toggle = (id: string, label: string, standard: boolean): Dial => ({
  type: "toggle",
  id,
  label,
  default: standard,
});
export const template = (id: string, label: string, standard: string): Dial => ({
  type: "template",
  id,
  label,
  default: standard,
});
export const colour = (id: string, label: string): Dial => ({ type: "colour", id, label, default: "" });
export const palette = (id: string, label: string): Dial => ({ type: "palette", id, label, default: "" });

/** What a value past the end of its scale does. */
export const pastDial = (label: string, end: string): Dial =>
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

export const capsDial = (standard: "flat" | "round"): Dial =>
  choice(
    "caps",
    "Ends",
    [
      ["flat", "flat"],
      ["round", "round"],
    ],
    standard,
  );

export const directionDial = (standard: "right" | "up"): Dial =>
  choice(
    "direction",
    "Direction",
    [
      ["right", "to the right"],
      ["up", "upwards"],
    ],
    standard,
  );
