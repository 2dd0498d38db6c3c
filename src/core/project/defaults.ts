import { NEW_FORMAT } from "../base/number-format";
import type { TileContent } from "./board-edits";
import type { Board, Control, Input, Measure, Visual } from "./schema";

// What the schema gives where nothing is said, without the library that checks it; a test
// holds both together.

/** A visual with what is given, and the schema's defaults elsewhere. */
export const newVisual = (given: Pick<Visual, "id" | "name" | "kind"> & Partial<Visual>): Visual => ({
  finish: "plain",
  title: "",
  subtitle: "",
  value: null,
  split: null,
  steps: [],
  series: null,
  more: [],
  second: null,
  headSize: null,
  comparison: null,
  target: null,
  minimum: null,
  maximum: null,
  baseline: null,
  zones: [],
  order: { by: "value", order: "desc" },
  seriesOrder: null,
  keep: null,
  filters: [],
  dials: {},
  categoryColours: {},
  rules: [],
  pictures: {},
  changed: [],
  leftFindings: {},
  size: { width: 400, height: 330 },
  ...given,
});

/** A measure with what is given, and the schema's defaults elsewhere. */
export const newMeasure = (
  given: Pick<Measure, "id" | "name" | "label" | "table" | "formula"> & Partial<Measure>,
): Measure => ({
  note: "",
  tableSet: true,
  format: NEW_FORMAT,
  betterWhen: "higher",
  standsWhole: false,
  proofs: [],
  ...given,
});

/** An input with what is given, and the schema's defaults elsewhere. */
export const newInput = (
  given: Pick<Input, "id" | "name" | "label" | "type" | "value"> & Partial<Input>,
): Input => ({
  minimum: null,
  maximum: null,
  step: null,
  choices: [],
  choicesFrom: null,
  format: NEW_FORMAT,
  ...given,
});

/** A filter of a board with what is given, and the schema's defaults elsewhere. */
export const newFilter = (
  given: Pick<Extract<Control, { type: "filter" }>, "id" | "label" | "table" | "column"> &
    Partial<Extract<Control, { type: "filter" }>>,
): Extract<Control, { type: "filter" }> => ({
  type: "filter",
  as: "buttons",
  many: true,
  begins: { in: [] },
  leaves: [],
  width: "automatic",
  ...given,
});

/** The control of an input, as its type is set. */
export const newInputControl = (given: { id: string; input: string }): Control => ({
  type: "input",
  as: "automatic",
  width: "automatic",
  ...given,
});

/** A visual on a board, without its place. */
export const visualTile = (id: string, visual: string): TileContent => ({
  id,
  type: "visual",
  visual,
  as: "drawing",
  aside: false,
});

/** A board with what is given, and the schema's defaults elsewhere. */
export const newBoard = (given: Pick<Board, "id" | "name"> & Partial<Board>): Board => ({
  width: "fluid",
  look: { palette: null, finish: null, ground: "none", frame: "own" },
  tiles: [],
  controls: [],
  phoneOrder: [],
  ...given,
});
