import type { VisualRow } from "../../rows/visual-data";
import type { Box } from "../../scene/box";
import type { Mark } from "../../scene/marks";
import { number, part, toggle } from "./dial";
import type { SceneInput } from "./kind";
import type { SharedPart } from "./shared-parts";

/** The axis that kinds of bands share. */
export const AXIS_PART = part("axis", "Axis", [
  toggle("names", "Names", true),
  number("size", "Size", [9, 20, 0.5], "px", 11.5),
  toggle("line", "Base line", true),
  number("grid", "Grid lines", [0, 8, 1], "", 0),
]);

/** What bands are laid out from. */
export type BandsInput = SceneInput<typeof AXIS_PART | SharedPart>;

/** The lowest and the highest value of a scale. */
export interface Domain {
  low: number;
  high: number;
}

/** Rows laid out as bands across a scale. */
export interface Bands extends Domain {
  horizontal: boolean;
  /** The body with the note of what does not fit, and the plot within it. */
  whole: Box;
  plot: Box;
  rows: VisualRow[];
  pitch: number;
  /**
   * What thicknesses are a share of: the pitch, but no more than a quarter of the plot, so that few bars are
   * not slabs.
   */
  band: number;
  /** The pixel of a value along the scale. */
  at: (value: number) => number;
  /** The pixel of a row's middle across it. */
  centre: (row: number) => number;
  /** The pixel that bars start from. */
  base: number;
  /** The texts of the labels at the ends, and their size; null where they have no room. */
  labels: { texts: string[]; size: number } | null;
  /** Names, base line, grid, and the note of what does not fit. */
  marks: Mark[];
  /** How many rows do not fit, as a sentence for the description; empty when all do. */
  left: string;
}
