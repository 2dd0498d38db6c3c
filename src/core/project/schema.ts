import { z } from "zod";
import { DATE_BUCKETS, isTimeZone } from "../base/calendar";
import { writesDays } from "../base/date-pattern";
import type { NumberFormat } from "../base/number-format";
import { FILE_FORMAT_IDS, MOST_ABOVE } from "../data/file-formats";
import { readingSchema } from "../data/reading-schema";
import { firstIssue } from "../plan/first-issue";
import { namedValues } from "../plan/named-values";
import { filterSchema, splitSchema, valueSchema } from "../plan/query";
import { boardSchema } from "./board-schema";
import { LONGEST_WORD } from "./fixed-words";
import { FRAME_LIMITS } from "./frame-limits";
import { LONGEST } from "./most";
import { colourSchema, id, listOf, name } from "./schema-atoms";
import { SYMBOLS } from "./symbols";

export type { Board, BoardLook, Control, Ground, Setting, Tile } from "./board-schema";
export { boardSchema };

/** The word by which a project file is known. */
export const FORMAT = "cavlo-project";
/** The version of project files that is written; older ones are migrated when they are read. */
export const FORMAT_VERSION = 6;

const note = z.string().max(LONGEST.note).default("");

/** How a number is written; what is left out is as in a plain number. */
const numberFormatSchema: z.ZodType<NumberFormat, Partial<NumberFormat>> = z.object({
  style: z.enum(["number", "percent", "currency", "duration"]).default("number"),
  decimals: z.union([z.int().min(0).max(10), z.literal("automatic")]).default("automatic"),
  units: z.enum(["none", "thousand", "million", "billion", "automatic"]).default("none"),
  currency: z
    .string()
    .regex(/^[A-Z]{3}$/, "A currency is three capitals, for example EUR.")
    .default("EUR"),
  prefix: z.string().max(LONGEST.affix).default(""),
  suffix: z.string().max(LONGEST.affix).default(""),
  locale: z.string().max(35).default("plain"),
  dates: z
    .string()
    .max(LONGEST.pattern)
    .refine(writesDays, "No way to write a date. Use for example dd MMM yyyy.")
    .optional(),
});

/** A column of the file. A hidden one is not offered, but formulas that name it go on. */
const columnSchema = z.object({ name, reading: readingSchema, hidden: z.boolean().default(false) });

/** A column that is computed row by row from a formula. */
const derivedSchema = z.object({
  name,
  formula: z.string().max(10_000),
  hidden: z.boolean().default(false),
});

/**
 * A table's declaration. Its rows are stored apart, under `id`, as the texts of the file; `reading` says how
 * they are read.
 */
export const tableSchema = z.object({
  id,
  name,
  rows: z.int().min(0),
  columns: z.array(columnSchema).max(2000),
  derived: listOf(derivedSchema, "table", "derived").default([]),
  source: z.object({
    file: z.string().max(300),
    format: z.enum(FILE_FORMAT_IDS).default("csv"),
    separator: z.string().max(4).default(","),
    encoding: z.string().max(40).default("utf-8"),
    header: z.boolean().default(true),
    /** How many rows above the table were left out. */
    above: z.int().min(0).max(MOST_ABOVE).default(0),
    /** The sheet of a workbook, or the array of a JSON object, that was read, and those it has. */
    sheet: z.string().max(300).default(""),
    sheets: z.array(z.string().max(300)).max(200).default([]),
  }),
});

/** A many-to-one tie: a row of `table` belongs to the row of `to` whose `key` equals its `column`. */
export const linkSchema = z.object({ id, table: name, column: name, to: name, key: name });

const tolerance = z.number().min(0).default(0);
/**
 * What is expected of a measure whatever the data: limits for every group of a split, a value under filters,
 * or the total of another measure.
 */
const proofSchema = z.discriminatedUnion("type", [
  z.object({
    id,
    type: z.literal("between"),
    from: z.number().nullable(),
    to: z.number().nullable(),
    split: splitSchema.nullable().default(null),
  }),
  z.object({
    id,
    type: z.literal("equals"),
    value: z.number(),
    tolerance,
    filters: z.array(filterSchema).max(20).default([]),
  }),
  z.object({ id, type: z.literal("same total"), measure: id.nullable(), tolerance }),
]);

/** A measure: a formula with a name, and how its values are written. */
export const measureSchema = z.object({
  id,
  name,
  label: name,
  note,
  table: z.string().max(120).nullable().default(null),
  /** Whether somebody has set its table; else the names of its formula tell it, again whenever they change. */
  tableSet: z.boolean().default(true),
  formula: z.string().max(10_000),
  format: numberFormatSchema,
  betterWhen: z.enum(["higher", "lower", "neither"]).default("higher"),
  /** Whether it keeps its value beside others where a filter narrows them and means nothing to its own rows. */
  standsWhole: z.boolean().default(false),
  proofs: listOf(proofSchema, "measure", "proofs").default([]),
});

/** A value that formulas name as :name and that a reader of a board can change. */
export const inputSchema = z.object({
  id,
  name,
  label: name,
  type: z.enum(["number", "text", "date"]),
  value: valueSchema,
  minimum: z.number().nullable().default(null),
  maximum: z.number().nullable().default(null),
  step: z.number().positive().nullable().default(null),
  /** The values that can be chosen, where not any value can be: a list, or what stands in a column. */
  choices: listOf(valueSchema, "input", "choices").default([]),
  choicesFrom: z
    .object({ table: z.string().max(120), column: z.string().max(200) })
    .nullable()
    .default(null),
  format: numberFormatSchema,
});

/**
 * A measure or an input that a number is taken from, by id. Where a visual has rows, a measure is computed
 * for each of them, unless all are held against its value over the whole.
 */
const fromMeasure = z.strictObject({ measure: id, over: z.literal("whole").optional() });
const fromInput = z.strictObject({ input: id });
/** Where a number in a sentence comes from: a measure or an input (by id), or the number itself. */
export const sourceSchema = z.union([fromMeasure, fromInput, z.strictObject({ number: z.number() })]);

/** A stretch of a gauge's scale up to `to` (null: to the end), with the word and the colour it stands for. */
const zoneSchema = z.object({
  to: z.union([z.number(), fromMeasure, fromInput]).nullable(),
  word: z.string().max(LONGEST.word),
  tone: z.enum(["poor", "watch", "good", "plain"]),
  /** A colour of its own, in the place of its tone's. */
  color: colourSchema.optional(),
});

const within = ({ least, most }: { least: number; most: number }) => z.int().min(least).max(most);

const dialsSchema = z
  .record(z.string().max(60), z.union([z.number(), z.string().max(LONGEST.dial), z.boolean()]))
  .default({});

/**
 * A condition on a measure (null: the visual's value) with the word, the colour and the symbol that stand for
 * it. The first that holds counts.
 */
const ruleSchema = z.object({
  measure: id.nullable().default(null),
  when: z.enum(["below", "from", "is"]),
  than: z.union([z.number(), z.string().max(LONGEST.compared), fromMeasure, fromInput]),
  word: z.string().max(LONGEST.word),
  color: colourSchema,
  symbol: z.enum(SYMBOLS).default("none"),
});

/** A palette of the project's own. */
const paletteSchema = z.object({
  id,
  name,
  type: z.enum(["categorical", "sequential", "diverging"]),
  light: listOf(colourSchema, "palette", "light").min(2, "A palette has at least two colours."),
  night: listOf(colourSchema, "palette", "night").min(2, "A palette has at least two colours."),
});

/** A finish of the project's own: settings of dials under one name, laid over those of a shipped finish. */
const finishSchema = z.object({
  id,
  name,
  base: z.string().max(40).default("plain"),
  dials: dialsSchema,
});

/**
 * A picture that was uploaded for lollipop heads, as a data address of a PNG or of an SVG without anything
 * that runs.
 */
const pictureSchema = z.object({
  id,
  name,
  href: z
    .string()
    .max(200_000, "A picture has at most 150 kB.")
    .regex(/^data:image\/(png|svg\+xml);base64,[A-Za-z0-9+/=]+$/, "A picture is a PNG or an SVG."),
});

/**
 * What the categories of a column, or of a date's stretches, are in all visuals: those that go first in their
 * own order, and colours of their own.
 */
const categoriesSchema = z.object({
  id,
  table: name,
  column: z.string().min(1).max(200),
  by: z.enum(DATE_BUCKETS).optional(),
  order: listOf(valueSchema, "categories", "order").default([]),
  colours: listOf(z.object({ value: valueSchema, color: colourSchema }), "categories", "colours").default([]),
});

/** What rows or series are put in order by: the value, their own order, a measure (by id) or a column. */
const orderSchema = z.object({
  by: z.union([
    z.enum(["value", "split"]),
    z.strictObject({ measure: id }),
    z.strictObject({ column: z.string().min(1).max(320) }),
  ]),
  order: z.enum(["asc", "desc"]),
});

/** A visual: its kind, what its sentence says of the data, and its look. */
export const visualSchema = z.object({
  id,
  name,
  /** The id of a kind; which there are is known to the kinds (see core/view/document.ts). */
  kind: z.string().min(1).max(40),
  finish: z.string().max(40).default("plain"),
  title: z.string().max(LONGEST.title).default(""),
  subtitle: z.string().max(LONGEST.title).default(""),
  value: id.nullable().default(null),
  split: splitSchema.nullable().default(null),
  /** The splits below it, to which readers of a board step down from a category. */
  steps: listOf(splitSchema, "visual", "steps").default([]),
  /** A second split: segments of a stack, bars side by side, concentric rings. */
  series: splitSchema.nullable().default(null),
  /** Further measures, each a ring of its own. */
  more: listOf(id, "visual", "more").default([]),
  /** The measure in front of the value's bar, and the one that sizes a lollipop's heads. */
  second: id.nullable().default(null),
  headSize: id.nullable().default(null),
  comparison: sourceSchema.nullable().default(null),
  target: sourceSchema.nullable().default(null),
  minimum: sourceSchema.nullable().default(null),
  maximum: sourceSchema.nullable().default(null),
  /** What lengths are measured from, where that is not zero. */
  baseline: sourceSchema.nullable().default(null),
  zones: listOf(zoneSchema, "visual", "zones").default([]),
  order: orderSchema.default({ by: "value", order: "desc" }),
  /** Null: the largest first, or one after the other in time. */
  seriesOrder: orderSchema.nullable().default(null),
  keep: z
    .object({ first: z.int().min(1).max(200), others: z.boolean() })
    .nullable()
    .default(null),
  filters: listOf(filterSchema, "visual", "filters").default([]),
  /** Dials set by hand, as "part.dial"; all others stand at the kind's default. */
  dials: dialsSchema,
  /** Colours of categories by their label, where they are not the palette's. */
  categoryColours: namedValues(colourSchema, 300).default({}),
  rules: listOf(ruleSchema, "visual", "rules").default([]),
  /** Pictures of categories by their label: "icon:NAME", or the id of one of the project's. */
  pictures: namedValues(z.string().max(60), 300).default({}),
  /** What an earlier version drew otherwise: the review says so until that is settled. */
  changed: z
    .array(z.enum(["own targets"]))
    .max(1)
    .default([]),
  /** Findings of the review that were left as they are, by their id, with the reason. */
  leftFindings: namedValues(z.string().max(LONGEST.reason), 60).default({}),
  size: z
    .object({ width: within(FRAME_LIMITS.width), height: within(FRAME_LIMITS.height) })
    .default({ width: 400, height: 330 }),
});

/** What a project takes for granted: how weeks and years are counted, and the words that pictures say. */
export const conventionsSchema = z.object({
  weekStart: z.enum(["monday", "sunday", "saturday"]).default("monday"),
  weekOne: z.enum(["iso", "first day"]).default("iso"),
  /** The month in which years begin. */
  yearStart: z.int().min(1).max(12).default(1),
  /** The time zone of "today". */
  timeZone: z
    .string()
    .max(60)
    .refine(isTimeZone, "There is no time zone of that name. Write one such as Europe/Lisbon.")
    .default(""),
  /** What new measures and inputs are written in, and the names of months. */
  locale: z.string().max(35).default("plain"),
  currency: z
    .string()
    .regex(/^[A-Z]{3}$/, "A currency is three capitals, for example EUR.")
    .default("EUR"),
  /** Fixed words of pictures by their name, where they are not those that ship. */
  words: namedValues(z.string().max(LONGEST_WORD), 80).default({}),
});

/** The whole document of a project. */
export const projectSchema = z.object({
  format: z.literal(FORMAT),
  version: z.literal(FORMAT_VERSION),
  name,
  tables: listOf(tableSchema, "project", "tables").default([]),
  links: listOf(linkSchema, "project", "links").default([]),
  measures: listOf(measureSchema, "project", "measures").default([]),
  inputs: listOf(inputSchema, "project", "inputs").default([]),
  conventions: conventionsSchema.prefault({}),
  palettes: listOf(paletteSchema, "project", "palettes").default([]),
  finishes: listOf(finishSchema, "project", "finishes").default([]),
  pictures: listOf(pictureSchema, "project", "pictures").default([]),
  categories: listOf(categoriesSchema, "project", "categories").default([]),
  visuals: listOf(visualSchema, "project", "visuals").default([]),
  boards: listOf(boardSchema, "project", "boards").default([]),
});

/** A table as the document declares it; its rows are stored apart. */
export type TableInfo = z.infer<typeof tableSchema>;
/** A table's declaration as it may be written: what has a default can be left out. */
export type TableInput = z.input<typeof tableSchema>;
/** A column of one table that names rows of another. */
export type TableLink = z.infer<typeof linkSchema>;
/** What must hold of a measure, kept to be checked. */
export type Proof = z.infer<typeof proofSchema>;
/** A measure of the document. */
export type Measure = z.infer<typeof measureSchema>;
/** An input of the document. */
export type Input = z.infer<typeof inputSchema>;
/** Where a phrase takes a number from: written out, a measure or an input. */
export type NumberSource = z.infer<typeof sourceSchema>;
/** A stretch of a scale with its word and tone. */
export type Zone = z.infer<typeof zoneSchema>;
/** A rule that colours what fulfils it. */
export type Rule = z.infer<typeof ruleSchema>;
/** A palette that the project brings. */
export type OwnPalette = z.infer<typeof paletteSchema>;
/** A finish that the project brings. */
export type OwnFinish = z.infer<typeof finishSchema>;
/** A picture that the project brings. */
export type OwnPicture = z.infer<typeof pictureSchema>;
/** What the categories of a column are in all visuals. */
export type ColumnCategories = z.infer<typeof categoriesSchema>;
/** What rows or series are put in order by. */
export type Order = z.infer<typeof orderSchema>;
/** What a project takes for granted. */
export type Conventions = z.infer<typeof conventionsSchema>;
/** A visual of the document. */
export type Visual = z.infer<typeof visualSchema>;
/** The document of a project. */
export type Project = z.infer<typeof projectSchema>;

/** A project with nothing in it but its name. */
export function emptyProject(projectName: string): Project {
  return projectSchema.parse({ format: FORMAT, version: FORMAT_VERSION, name: projectName });
}

/** The first thing wrong in a document, said with its place: "measures 3, name: A name is needed." */
export function documentProblem(error: z.ZodError): string {
  const { path, message } = firstIssue(error);
  const place = path.map((p) => (typeof p === "number" ? String(p + 1) : String(p))).join(" ");
  return place ? `${place}: ${message}` : message;
}
