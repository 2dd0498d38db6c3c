import { formatNumber } from "../base/number-format";
import { isKind, kindOf } from "../kinds";
import type { Dial, DialValue } from "../kinds/anatomy/dial";
import type { TileChange } from "../project/board-edits";
import type { Edit, EditOf } from "../project/edits";
import type { ListItem, ListName } from "../project/item-edits";
import { ROLE_FIELDS, type RoleField } from "../project/roles";
import type {
  Board,
  BoardLook,
  Conventions,
  Input,
  Measure,
  Project,
  TableInfo,
  Tile,
  Visual,
} from "../project/schema";
import { styleOf } from "./picture";

/** Where an edit stands between: the project before it and after it. */
interface Between {
  before: Project;
  after: Project;
}
type Words = { [T in Edit["type"]]: (edit: EditOf<T>, between: Between) => string };

const byId = <T extends { id: string }>(list: T[], id: string) => list.find((one) => one.id === id);
const visualName = (p: Project, id: string) => byId(p.visuals, id)?.name ?? "a visual";
const boardName = (p: Project, id: string) => byId(p.boards, id)?.name ?? "a board";
const tableName = (p: Project, id: string) => byId(p.tables, id)?.name ?? "a table";
const list = (names: string[]) => names.join(", ");

const FIELD_WORDS = Object.fromEntries(
  Object.entries(ROLE_FIELDS).map(([field, { word }]) => [field, word]),
) as Record<RoleField, string>;
const VISUAL_WORDS: Record<keyof Omit<Visual, "id">, string> = {
  name: "Name",
  kind: "Kind",
  finish: "Finish",
  title: "Title",
  subtitle: "Subtitle",
  ...FIELD_WORDS,
  filters: "Filters",
  dials: "Dials",
  categoryColours: "Colours of categories",
  rules: "Rules",
  changed: "What is drawn otherwise now",
  leftFindings: "Findings left as they are",
  size: "Size",
};
const MEASURE_WORDS: Record<keyof Omit<Measure, "id">, string> = {
  name: "Name in formulas",
  label: "Label",
  note: "Note",
  table: "Table",
  tableSet: "Table set by hand",
  formula: "Formula",
  format: "Format",
  betterWhen: "Better when",
  standsWhole: "Stands whole",
  proofs: "Tests",
};
const INPUT_WORDS: Record<keyof Omit<Input, "id">, string> = {
  name: "Name in formulas",
  label: "Label",
  type: "Type",
  value: "Value",
  minimum: "Minimum",
  maximum: "Maximum",
  step: "Step",
  choices: "Choices",
  choicesFrom: "Choices",
  format: "Format",
};
const COLUMN_WORDS: Record<keyof TableInfo["columns"][number], string> = {
  name: "Name",
  reading: "Read as",
  hidden: "Hidden",
};
const DERIVED_WORDS: Record<keyof TableInfo["derived"][number], string> = {
  name: "Name",
  formula: "Formula",
  hidden: "Hidden",
};

const CONVENTION_WORDS: Record<keyof Conventions, string> = {
  weekStart: "Weeks begin on",
  weekOne: "First week",
  yearStart: "Years begin in month",
  timeZone: "Time zone",
  locale: "Numbers",
  currency: "Currency",
  words: "Words",
};
const TABLE_WORDS = {
  id: "Rows",
  name: "Name",
  rows: "Rows",
  columns: "Columns",
  derived: "Derived columns",
  source: "Source",
};
const PALETTE_WORDS = { name: "Name", type: "For", light: "Colours", night: "Colours at night" };

const LONGEST = 40;
const shortened = (text: string) => (text.length > LONGEST ? `${text.slice(0, LONGEST - 2)} …` : text);

/** A value as it is said, where it can be said in a few words; null where not. */
function said(value: unknown): string | null {
  if (typeof value === "number") return String(value);
  if (typeof value === "boolean") return value ? "yes" : "no";
  if (typeof value === "string") return value === "" ? "nothing" : `“${shortened(value)}”`;
  return value === null || value === undefined ? "none" : null;
}

/**
 * "Title “A” → “B”" for each field that differs; only the field where its value takes more than a few words.
 */
function fieldWords<T extends object>(was: T | undefined, change: Partial<T>, words: Record<string, string>) {
  const keys = (Object.keys(change) as (keyof T & string)[]).filter(
    (key) => JSON.stringify(was?.[key]) !== JSON.stringify(change[key]),
  );
  const parts = keys.map((key) => {
    const [from, to] = [said(was?.[key]), said(change[key])];
    return from === null || to === null ? `${words[key]} changed` : `${words[key]} ${from} → ${to}`;
  });
  return [...new Set(parts)].join(", ") || "Nothing changed";
}

/** A dial's value in its own words: "58 %", "counter-clockwise", "shown". */
function dialValue(dial: Dial, value: DialValue): string {
  switch (dial.type) {
    case "number":
      return `${value}${dial.unit === "" || dial.unit === "°" ? "" : " "}${dial.unit}`;
    case "choice":
      return dial.options.find((o) => o.value === value)?.label ?? String(value);
    case "toggle":
      return value ? "on" : "off";
    case "colour":
    case "palette":
      return value === "" ? "automatic" : String(value);
    case "template":
      return said(value) ?? "";
  }
}

/** "Hole 58 % → 64 %, Passengers by route". */
function dialWords({ id, dial: key }: EditOf<"set dial">, { before, after }: Between): string {
  const [was, is] = [byId(before.visuals, id), byId(after.visuals, id)];
  if (!was || !is || !isKind(is.kind)) return "A dial of a visual changed";
  const part = kindOf(is.kind).parts.find((p) => key.startsWith(`${p.id}.`));
  const dial = part?.dials.find((d) => `${part.id}.${d.id}` === key);
  if (!part || !dial) return `${key} changed, ${is.name}`;
  const [a, b] = [styleOf(was, before).value(key), styleOf(is, after).value(key)];
  const label = part.label === dial.label ? dial.label : `${part.label}, ${dial.label.toLowerCase()}`;
  return `${dial.type === "number" ? dial.label : label} ${dialValue(dial, a)} → ${dialValue(dial, b)}, ${is.name}`;
}

/** "Goal 84 % → 90 %": what an input stands at, in its own format. */
function inputWords({ id, change }: EditOf<"change input">, { before }: Between): string {
  const was = byId(before.inputs, id);
  const label = was?.label ?? "an input";
  const [from, to] = [was?.value, change.value];
  if (was && Object.keys(change).join() === "value" && typeof from === "number" && typeof to === "number")
    return `${label} ${formatNumber(from, was.format)} → ${formatNumber(to, was.format)}`;
  return `${fieldWords(was, change, INPUT_WORDS)}, ${label}`;
}

const controlLabel = (p: Project, board: Board | undefined, id: string) => {
  const control = board && byId(board.controls, id);
  if (!control) return "a control";
  return control.type === "filter" ? control.label : (byId(p.inputs, control.input)?.label ?? "an input");
};
const TILE_WORDS = { text: "a text", picture: "a picture", line: "a line", section: "a section" };
const tileName = (p: Project, tile: Pick<Tile, "type"> & { visual?: string; heading?: string }) => {
  if (tile.type === "visual") return visualName(p, tile.visual ?? "");
  return tile.heading ? `the section ${tile.heading}` : TILE_WORDS[tile.type];
};
const tileLabel = (p: Project, board: string, id: string) => {
  const tile = byId(byId(p.boards, board)?.tiles ?? [], id);
  return tile ? tileName(p, tile) : "a tile";
};
/** Some tiles of a board: one by its name, several counted. */
const tilesLabel = (p: Project, board: string, ids: string[]) =>
  ids.length === 1 ? tileLabel(p, board, ids[0]) : ids.length === 0 ? "tiles" : `${ids.length} tiles`;
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

const BOARD_WORDS: Record<keyof Omit<Board, "id">, string> = {
  name: "Name",
  width: "Width",
  look: "Look",
  tiles: "Tiles",
  controls: "Controls",
  phoneOrder: "Order on a phone",
};
const TILE_FIELDS: Record<keyof TileChange, string> = {
  visual: "Visual",
  as: "Drawn as",
  aside: "Stands aside",
  text: "Text",
  picture: "Picture",
  shows: "What it shows",
  fit: "Fit",
  along: "Direction",
  heading: "Title",
  ground: "Background",
  border: "Border",
  phone: "Rows on a phone",
};
const LOOK_FIELDS: Record<keyof BoardLook, string> = {
  palette: "Palette",
  finish: "Finish",
  ground: "Background",
  frame: "Frame",
};

const LIST_WORDS: Record<ListName, { one: string; many: string; fields: Record<string, string> }> = {
  tables: { one: "Table", many: "Tables", fields: TABLE_WORDS },
  links: { one: "Link", many: "Links", fields: { table: "From", column: "Column", to: "To", key: "Key" } },
  measures: { one: "Measure", many: "Measures", fields: MEASURE_WORDS },
  inputs: { one: "Input", many: "Inputs", fields: INPUT_WORDS },
  palettes: { one: "Palette", many: "Palettes", fields: PALETTE_WORDS },
  finishes: { one: "Finish", many: "Finishes", fields: { name: "Name", base: "Made from", dials: "Dials" } },
  categories: {
    one: "Categories",
    many: "Categories",
    fields: { order: "Order", colours: "Colours" },
  },
  pictures: { one: "Picture", many: "Pictures", fields: { name: "Name", href: "Picture" } },
  visuals: { one: "Visual", many: "Visuals", fields: VISUAL_WORDS },
  boards: { one: "Board", many: "Boards", fields: BOARD_WORDS },
};

/** "Measure Load factor": what an item is and how it is called. */
function itemName(list: ListName, item: ListItem | undefined): string {
  if (!item) return LIST_WORDS[list].one;
  if ("to" in item) return `Link from ${item.table}.${item.column} to ${item.to}.${item.key}`;
  if ("colours" in item) return `Categories of ${item.table}.${item.column}`;
  return `${LIST_WORDS[list].one} ${"label" in item ? item.label : item.name}`;
}

function putWords({ list, item }: EditOf<"put item">, { before }: Between): string {
  const was = (before[list] as ListItem[]).find((one) => one.id === item.id);
  if (!was) return `${itemName(list, item)} added`;
  return `${itemName(list, was)}: ${fieldWords<ListItem>(was, item, LIST_WORDS[list].fields)}`;
}

const WORDS: Words = {
  "rename project": ({ name }, { before }) => `Project “${before.name}” → “${name}”`,
  "change conventions": ({ change }, { before }) =>
    `Calendar and language: ${fieldWords(before.conventions, change, CONVENTION_WORDS)}`,
  "take document": () => "Another version of the project taken",
  "put item": putWords,
  "take item": ({ list, id }, { before }) => `${itemName(list, byId<ListItem>(before[list], id))} removed`,
  "order items": ({ list }) => `${LIST_WORDS[list].many} in another order`,

  "add table": (_, { before, after }) =>
    `Table ${after.tables.find((t) => !byId(before.tables, t.id))?.name ?? ""} added`,
  "rename table": ({ id, name }, { before }) => `Table ${tableName(before, id)} → ${name}`,
  "remove table": ({ id }, { before }) => `Table ${tableName(before, id)} removed`,
  "replace rows": ({ id, fresh }, { before }) => `Rows of ${tableName(before, id)} from ${fresh.source.file}`,
  "change column": ({ table, column, change }, { before }) => {
    const was = byId(before.tables, table)?.columns.find((c) => c.name === column);
    return `${fieldWords(was, change, COLUMN_WORDS)}, ${tableName(before, table)}.${column}`;
  },
  "add derived": ({ table, derived }, { before }) =>
    `Derived column ${tableName(before, table)}.${derived.name} added`,
  "change derived": ({ table, column, change }, { before }) => {
    const was = byId(before.tables, table)?.derived.find((c) => c.name === column);
    return `${fieldWords(was, change, DERIVED_WORDS)}, ${tableName(before, table)}.${column}`;
  },
  "remove derived": ({ table, column }, { before }) =>
    `Derived column ${tableName(before, table)}.${column} removed`,
  "add link": ({ link }) => `Link from ${link.table}.${link.column} to ${link.to}.${link.key} added`,
  "remove link": ({ id }, { before }) => {
    const link = byId(before.links, id);
    return link ? `Link from ${link.table}.${link.column} to ${link.to}.${link.key} removed` : "Link removed";
  },

  "add measure": ({ measure }) => `Measure ${measure.label} added`,
  "change measure": ({ id, change }, { before }) => {
    const was = byId(before.measures, id);
    return `${fieldWords(was, change, MEASURE_WORDS)}, ${was?.label ?? "a measure"}`;
  },
  "remove measure": ({ id }, { before }) => `Measure ${byId(before.measures, id)?.label ?? ""} removed`,
  "add input": ({ input }) => `Input ${input.label} added`,
  "change input": inputWords,
  "remove input": ({ id }, { before }) => `Input ${byId(before.inputs, id)?.label ?? ""} removed`,

  "add visual": ({ visual, measure }) =>
    `Visual ${visual.name} added${measure ? `, with the measure ${measure.label}` : ""}`,
  "change visual": ({ id, change }, { before }) =>
    `${fieldWords(byId(before.visuals, id), change, VISUAL_WORDS)}, ${visualName(before, id)}`,
  "set dial": dialWords,
  "clear dials": ({ id, dials }, { before }) =>
    `${dials.length === 1 ? "A dial" : `${dials.length} dials`} back to the defaults, ${visualName(before, id)}`,
  "remove visual": ({ id }, { before }) => `Visual ${visualName(before, id)} removed`,

  "save finish": ({ visual, finish }, { before }) =>
    `Finish ${finish.name} made of ${visualName(before, visual)}`,
  "update finish": ({ visual }, { before }) => `Finish changed by ${visualName(before, visual)}`,
  "rename finish": ({ id, name }, { before }) => `Finish ${byId(before.finishes, id)?.name ?? ""} → ${name}`,
  "remove finish": ({ id }, { before }) => `Finish ${byId(before.finishes, id)?.name ?? ""} removed`,
  "put palettes": ({ palettes }) => `Palette ${list(palettes.map((p) => p.name))} changed`,
  "remove palette": ({ id }, { before }) => `Palette ${byId(before.palettes, id)?.name ?? ""} removed`,
  "bring pictures": ({ pictures }) =>
    pictures.length === 1 ? `Picture ${pictures[0].name} added` : `${pictures.length} pictures added`,

  "add board": ({ board }) => `Board ${board.name} added`,
  "rename board": ({ id, name }, { before }) => `Board ${boardName(before, id)} → ${name}`,
  "remove board": ({ id }, { before }) => `Board ${boardName(before, id)} removed`,
  "change board": ({ board, change }, { before }) => {
    const was = byId(before.boards, board);
    const words = [
      ...(change.width === undefined ? [] : [`Width ${was?.width ?? ""} → ${change.width}`]),
      ...(change.look ? [fieldWords(was?.look, change.look, LOOK_FIELDS)] : []),
      ...(change.phoneOrder ? ["Order on a phone"] : []),
    ];
    return `${words.join(", ")}, ${boardName(before, board)}`;
  },
  "add tile": ({ board, tile }, { before }) =>
    `${capital(tileName(before, tile))} on ${boardName(before, board)}`,
  "add tiles": ({ board, tiles }, { before }) =>
    `${tiles.length === 1 ? capital(tileName(before, tiles[0])) : `${tiles.length} tiles`} on ${boardName(before, board)}`,
  "change tile": ({ board, tile, change }, { before }) => {
    const was = byId(byId(before.boards, board)?.tiles ?? [], tile);
    return `${fieldWords(was as TileChange | undefined, change, TILE_FIELDS)}, ${tileLabel(before, board, tile)} on ${boardName(before, board)}`;
  },
  "remove tiles": ({ board, tiles }, { before }) =>
    `${capital(tilesLabel(before, board, tiles))} taken off ${boardName(before, board)}`,
  "place tiles": ({ board, places, moved }, { before }) =>
    `${capital(tilesLabel(before, board, moved ?? places.map((p) => p.id)))} placed on ${boardName(before, board)}`,
  "add control": ({ board, control }, { before, after }) =>
    `${controlLabel(after, byId(after.boards, board), control.id)} as a control of ${boardName(before, board)}`,
  "keep state": ({ board }, { before }) => `What ${boardName(before, board)} begins with`,
  "change control": ({ board, control, change }, { before }) => {
    const was = controlLabel(before, byId(before.boards, board), control);
    const to = "label" in change && change.label ? ` → ${change.label}` : "";
    return `Control ${was}${to}, ${boardName(before, board)}`;
  },
  "move control": ({ board, control }, { before }) =>
    `${controlLabel(before, byId(before.boards, board), control)} moved among the controls of ${boardName(before, board)}`,
  "remove control": ({ board, control }, { before }) =>
    `${controlLabel(before, byId(before.boards, board), control)} taken off ${boardName(before, board)}`,
};

/** What an edit does, in a few words: "Hole 58 % → 64 %, Passengers by route". */
export function wordsOf(edit: Edit, before: Project, after: Project): string {
  return (WORDS[edit.type] as (edit: Edit, between: Between) => string)(edit, { before, after });
}
