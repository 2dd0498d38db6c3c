/**
 * How far a part of the document is taken apart when two documents are compared: as one unit, by the names of
 * a record, by its fields (units where nothing else is said), or by the members of a list, which their `key`
 * tells apart.
 */
export type Shape =
  | { type: "unit" }
  | { type: "record" }
  | { type: "fields"; fields: Readonly<Record<string, Shape>> }
  | { type: "items"; key: "id" | "name"; fields: Readonly<Record<string, Shape>> };

const UNIT: Shape = { type: "unit" };
const RECORD: Shape = { type: "record" };
/** Fields of which each is a unit. */
const units = (...names: string[]) => Object.fromEntries(names.map((name) => [name, UNIT]));
const fields = (of: Record<string, Shape>): Shape => ({ type: "fields", fields: of });
const items = (of: Record<string, Shape>, key: "id" | "name" = "id"): Shape => ({
  type: "items",
  key,
  fields: of,
});

const format = fields(units("style", "decimals", "units", "currency", "prefix", "suffix", "locale", "dates"));

/** Where a tile stands: these fields mean something only together. */
const PLACE = "x+y+w+h";

/** How a project is taken apart. A test holds it to the schema. */
export const PROJECT_SHAPE = fields({
  ...units("format", "version", "name"),
  tables: items({
    ...units("id", "name", "rows", "source"),
    columns: items(units("name", "reading", "hidden"), "name"),
    derived: items(units("name", "formula", "hidden"), "name"),
  }),
  links: items(units("id", "table", "column", "to", "key")),
  measures: items({
    ...units("id", "name", "label", "note", "table", "tableSet", "formula", "betterWhen", "standsWhole"),
    format,
    proofs: items(units("id", "type", "from", "to", "split", "value", "tolerance", "filters", "measure")),
  }),
  inputs: items({
    ...units("id", "name", "label", "type", "value", "minimum", "maximum", "step", "choices", "choicesFrom"),
    format,
  }),
  conventions: fields({
    ...units("weekStart", "weekOne", "yearStart", "timeZone", "locale", "currency"),
    words: RECORD,
  }),
  palettes: items(units("id", "name", "type", "light", "night")),
  finishes: items({ ...units("id", "name", "base"), dials: RECORD }),
  pictures: items(units("id", "name", "href")),
  categories: items(units("id", "table", "column", "by", "order", "colours")),
  visuals: items({
    ...units(
      "id",
      "name",
      "kind",
      "finish",
      "title",
      "subtitle",
      "value",
      "split",
      "steps",
      "series",
      "more",
    ),
    ...units("second", "headSize", "comparison", "target", "minimum", "maximum", "baseline", "zones"),
    ...units("order", "seriesOrder", "keep", "filters", "rules", "changed", "size"),
    dials: RECORD,
    categoryColours: RECORD,
    pictures: RECORD,
    leftFindings: RECORD,
  }),
  boards: items({
    ...units("id", "name", "width", "phoneOrder"),
    look: fields(units("palette", "finish", "ground", "frame")),
    tiles: items(
      units(
        ...["id", "type", "visual", "as", "aside", "text", "picture", "shows", "fit", "along", "heading"],
        ...["ground", "border", "phone", PLACE],
      ),
    ),
    controls: items(
      units(
        "id",
        "type",
        "label",
        "table",
        "column",
        "by",
        "as",
        "many",
        "begins",
        "leaves",
        "width",
        "input",
      ),
    ),
  }),
});

/** The fields that a unit's name stands for. */
export const fieldsOf = (unit: string): string[] => unit.split("+");
