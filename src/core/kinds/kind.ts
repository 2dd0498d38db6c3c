import type { KindId } from "../project/schema";
import type { Theme } from "../scene/colour";
import type { Scene } from "../scene/marks";
import type { Style } from "./style";
import type { VisualData } from "./visual-data";

export type DialValue = number | string | boolean;

/** One control of a part. A dial of type template takes text with `{names}`; an empty colour means the automatic one. */
export type Dial = { id: string; label: string } & (
  | { type: "number"; min: number; max: number; step: number; unit: string; default: number }
  | { type: "choice"; options: { value: string; label: string }[]; default: string }
  | { type: "toggle"; default: boolean }
  | { type: "template"; default: string }
  | { type: "colour"; default: "" }
);

/** A named piece of a kind's anatomy with its dials. Marks name the part they belong to. */
export interface Part {
  id: string;
  label: string;
  dials: Dial[];
}

export type RoleId = "value" | "split" | "target" | "range" | "zones" | "keep" | "order";

/** What a kind needs to draw: frame in pixels, colours, dials, data, and the row under the pointer (its key) if any. */
export interface SceneInput {
  frame: { width: number; height: number };
  theme: Theme;
  style: Style;
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
