import { z } from "zod";
import { relativeSchema, valueSchema } from "../plan/query";
import { BOARD_WIDTHS, GROUNDS } from "./board-choices";
import { LONGEST, MOST } from "./most";
import { colourSchema, id, listOf, name } from "./schema-atoms";

/** What lies under tiles: a ground with a name, or two colours of one's own. */
const groundSchema = z.union([z.enum(GROUNDS), z.strictObject({ light: colourSchema, night: colourSchema })]);

const place = {
  x: z.int().min(0).max(11),
  y: z.int().min(0).max(10_000_000),
  w: z.int().min(1).max(12),
  h: z.int().min(1).max(100_000),
  /** How many rows it has on a phone; null: as many as it needs. */
  phone: z.int().min(2).max(1000).nullable().default(null),
};

/** One place on a board. */
const tileSchema = z.discriminatedUnion("type", [
  z.object({
    id,
    type: z.literal("visual"),
    visual: id,
    /** Drawn, or as the plain table of its numbers. */
    as: z.enum(["drawing", "table"]).default("drawing"),
    /** One that stands aside does not answer what is picked on others. */
    aside: z.boolean().default(false),
    ...place,
  }),
  /** A text with a few marks (headings, lists, bold, links) and names in braces. */
  z.object({ id, type: z.literal("text"), text: z.string().max(LONGEST.text), ...place }),
  /** A picture of the project's (null: not chosen yet), and what it shows; nothing where it only decorates. */
  z.object({
    id,
    type: z.literal("picture"),
    picture: id.nullable().default(null),
    shows: z.string().max(LONGEST.shows).default(""),
    fit: z.enum(["whole", "fill"]).default("whole"),
    ...place,
  }),
  z.object({ id, type: z.literal("line"), along: z.enum(["across", "down"]).default("across"), ...place }),
  /** What lies under other tiles and holds them together: those that lie wholly within it are its own. */
  z.object({
    id,
    type: z.literal("section"),
    heading: z.string().max(LONGEST.heading).default(""),
    ground: groundSchema.default("panel"),
    border: z.boolean().default(true),
    ...place,
  }),
]);

/**
 * What a filter of a board is set to: values (none: all of them), a stretch with both ends included (null: no
 * end), a text that is contained (empty: any), or a stretch of time counted from a day.
 */
const settingSchema = z.union([
  z.strictObject({ in: z.array(valueSchema).max(500) }),
  z.strictObject({ from: valueSchema, to: valueSchema }),
  z.strictObject({ contains: z.string().max(LONGEST.compared) }),
  z.strictObject({ relative: relativeSchema }),
]);

/** How wide a control stands: as wide as what is in it, less, more, or in a row of its own. */
const controlWidth = z.enum(["automatic", "narrow", "wide", "row"]).default("automatic");

/** What a reader of a board can turn: a filter or an input. */
const controlSchema = z.discriminatedUnion("type", [
  z.object({
    id,
    type: z.literal("filter"),
    label: name,
    table: z.string().max(120),
    column: z.string().max(200),
    by: z.enum(["year", "quarter", "month", "week"]).optional(),
    /** How it is set: by buttons, a list that is searched or a menu of values, as a stretch, or by a text. */
    as: z.enum(["buttons", "list", "menu", "stretch", "text"]).default("buttons"),
    /** Whether several values can be chosen. */
    many: z.boolean().default(true),
    /** What it is set to when the board is opened. */
    begins: settingSchema.default({ in: [] }),
    /** The tiles that it does not reach. */
    leaves: z.array(id).max(MOST.board.tiles).default([]),
    width: controlWidth,
  }),
  z.object({
    id,
    type: z.literal("input"),
    input: id,
    as: z.enum(["automatic", "slider", "field", "switch"]).default("automatic"),
    width: controlWidth,
  }),
]);

/** What all visuals of a board are drawn in, whatever their own look: a palette and a finish by id, a frame. */
const boardLookSchema = z.object({
  palette: z.string().max(40).nullable().default(null),
  finish: z.string().max(40).nullable().default(null),
  ground: groundSchema.default("none"),
  frame: z.enum(["own", "bare", "line", "card", "plate"]).default("own"),
});

/** A board: tiles on a grid, and controls above them. */
export const boardSchema = z.object({
  id,
  name,
  /** What it is made for: shown on other screens it is scaled, but a fluid one is laid out anew. */
  width: z.union([...BOARD_WIDTHS.map((w) => z.literal(w)), z.literal("fluid")]).default("fluid"),
  look: boardLookSchema.prefault({}),
  tiles: listOf(tileSchema, "board", "tiles").default([]),
  controls: listOf(controlSchema, "board", "controls").default([]),
  /** The order of tiles on a phone; those that are not named follow the one that they stand after. */
  phoneOrder: z.array(id).max(MOST.board.tiles).default([]),
});

/** A tile of a board. */
export type Tile = z.infer<typeof tileSchema>;
/** What lies under tiles. */
export type Ground = z.infer<typeof groundSchema>;
/** What a filter of a board is set to. */
export type Setting = z.infer<typeof settingSchema>;
/** A control of a board. */
export type Control = z.infer<typeof controlSchema>;
/** What all visuals of a board are drawn in. */
export type BoardLook = z.infer<typeof boardLookSchema>;
/** A board of the document. */
export type Board = z.infer<typeof boardSchema>;
