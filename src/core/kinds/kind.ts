import type { KindId, OwnPicture, Rule, Visual } from "../project/schema";
import type { Theme } from "../scene/colour";
import type { Scene } from "../scene/marks";
import type { Palette } from "../scene/palettes";
import type { RoleId } from "./roles";
import type { Style } from "./style";
import type { Surface } from "./surface";
import type { VisualData } from "./visual-data";

export type DialValue = number | string | boolean;

/** One control of a part. A dial of type template takes text with `{names}`; an empty colour or palette means the automatic one. */
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

/** What a visual brings for its colours and pictures besides its dials. */
export interface Look {
  palettes: Palette[];
  rules: Rule[];
  categoryColours: Record<string, string>;
  /** By the category's label. */
  pictures: Visual["pictures"];
  ownPictures: OwnPicture[];
}

/** What a kind needs to draw: frame in pixels, colours, dials, data, and the row under the pointer (its key) if any. */
export interface SceneInput {
  frame: { width: number; height: number };
  theme: Theme;
  style: Style;
  surface: Surface;
  look: Look;
  data: VisualData;
  focus: string | null;
}

export interface Kind {
  id: KindId;
  label: string;
  /** With its article, as the sentence says it: "as a donut". */
  phrase: string;
  roles: RoleId[];
  needsSplit: boolean;
  parts: Part[];
  scene: (input: SceneInput) => Scene;
}

export const number = (id: string, label: string, min: number, max: number, step: number, unit: string, standard: number): Dial => ({
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
export const toggle = (id: string, label: string, standard: boolean): Dial => ({ type: "toggle", id, label, default: standard });
export const template = (id: string, label: string, standard: string): Dial => ({ type: "template", id, label, default: standard });
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
