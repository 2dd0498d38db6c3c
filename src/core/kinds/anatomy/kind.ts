import type { RoleId } from "../../project/roles";
import type { OwnPicture, Visual } from "../../project/schema";
import type { RowKey, Side } from "../../rows/row-key";
import type { VisualData } from "../../rows/visual-data";
import type { Theme } from "../../scene/colour";
import type { Focus, Scene } from "../../scene/marks";
import type { Palette } from "../../scene/palettes";
import type { DialValue, Part } from "./dial";
import type { OpenStyle, Style } from "./style";
import type { Surface } from "./surface";

/** What a visual brings for its colours and pictures besides its dials. */
export interface Look {
  palettes: Palette[];
  categoryColours: Record<string, string>;
  /** By `pictureKey` of the row. */
  pictures: Visual["pictures"];
  ownPictures: OwnPicture[];
}

/** Categories of one of a visual's splits that stand out, the others stepping back. */
export interface Lit {
  side: Side;
  keys: readonly RowKey[];
}

/**
 * What a kind needs to draw: frame in pixels, colours, dials, data, and and what is under the
 * pointer, if anything.
 */
export interface SceneInput<in P extends Part = Part> {
  frame: { width: number; height: number };
  theme: Theme;
  style: Style<P>;
  surface: Surface;
  look: Look;
  data: VisualData;
  focus: Focus | null;
  /** The categories that were picked, all of one split, if any. */
  lit: Lit | null;
  /** Whether the kind draws values below zero. */
  downwards: boolean;
  /** Whether the foot has room to say how many of what is drawn have no name in the picture. */
  countsNames: boolean;
}

interface Size {
  width: number;
  height: number;
}

/** A kind of visual: what it is called, what it is made from and what it is made of, and how it is drawn. */
export interface Kind<Id extends string = string> {
  id: Id;
  label: string;
  /** With its article, as the sentence says it: "as a donut". */
  phrase: string;
  /** What it is for, in a sentence. */
  purpose: string;
  roles: readonly RoleId[];
  /** How the sentence says that so many pictures were given, for kinds that have pictures. */
  sayPictures?: (count: number) => string;
  /** Whether a picture only stands there while the pointer is on its category. */
  picturesByFocus?: true;
  /** Whether it shows nothing that can be told without a split. */
  needsSplit: boolean;
  /** What a split is over, where that is the course of time and not parts beside each other. */
  course?: true;
  /** Whether its rows are divided by a series from the first. */
  dividedAtFirst?: true;
  /** Whether values below zero have marks of their own. */
  downwards?: true;
  /** Why rows have no marks of their own, at these dials; null where they have. */
  unmarked?: (dials: Visual["dials"]) => string | null;
  /** Whether each row is one shape, whose length is its value. */
  byLength?: true;
  /** What shows rows, or the series of each, as parts of one whole; null at data and dials where nothing does. */
  wholeAs?: (data: VisualData, style: OpenStyle) => "slices" | "petals" | "stacks" | null;
  /** Whether measures without a split are parts of one whole, which is their sum. */
  sumsMeasures?: true;
  /** Whether its marks have other colours than those of categories, series and rules. */
  ownColours?: true;
  /**
   * What else of the visual changes with a dial, so that the picture means the same as before; null where
   * nothing does.
   */
  alongside?: (
    visual: Visual,
    data: VisualData,
    dial: string,
    value: DialValue | null,
  ) => Partial<Omit<Visual, "id">> | null;
  /** The size of a new visual, in pixels. */
  firstSize: Size;
  /** The size of a new tile of a board, in its columns and rows. */
  tileSize: (visual: Visual) => Size;
  parts: readonly Part[];
  scene: (input: SceneInput) => Scene;
}

/** A kind whose scene knows its parts by name: it is only ever given a style of these parts. */
export function defineKind<const Id extends string, const P extends Part>(
  kind: Omit<Kind<Id>, "parts" | "scene"> & {
    parts: readonly P[];
    scene: (input: SceneInput<P>) => Scene;
  },
): Kind<Id> {
  return { ...kind, scene: (input) => kind.scene(input as unknown as SceneInput<P>) };
}
