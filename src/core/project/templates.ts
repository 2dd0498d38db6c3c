import { sameName } from "../base/names";
import { namesInTemplate, renameInTemplate } from "../base/template";
import type { Board, Project, Visual } from "./schema";

/** What the names of the sentence stand for in templates; they go before measures and inputs called alike. */
export const TEMPLATE_ROLES = [
  "value",
  "total",
  "target",
  "share",
  "measure",
  "split",
  "series",
  "category",
  "filters",
] as const;
/** A name of the sentence that templates can write. */
export type TemplateRole = (typeof TEMPLATE_ROLES)[number];

const isRole = (name: string) => TEMPLATE_ROLES.some((role) => sameName(role, name));

/** What the texts of a board can write besides measures and inputs, which these go before. */
export const TEXT_WORDS = ["picked", "filters", "today"] as const;

/** How a measure or an input is written in the texts of a board: with its sort where a word is called like it. */
export const nameInTexts = (sort: "measure" | "input", name: string): string =>
  TEXT_WORDS.some((word) => sameName(word, name)) ? `${sort}.${name}` : name;

/** Whether a text of a board writes a measure or an input. */
export function textsName({ tiles }: Pick<Board, "tiles">, sort: "measure" | "input", name: string): boolean {
  const written = nameInTexts(sort, name);
  return tiles.some((t) => t.type === "text" && namesInTemplate(t.text).some((n) => sameName(n, written)));
}

/** Gives a name another one in the texts of a board, which is a draft. */
export function renameInTextsOf({ tiles }: Pick<Board, "tiles">, from: string, to: string): void {
  for (const tile of tiles) if (tile.type === "text") tile.text = renameInTemplate(tile.text, from, to);
}

/** How a measure or an input is written in templates: with its sort before it where a role is called like it. */
export const nameInTemplates = (sort: "measure" | "input", name: string): string =>
  isRole(name) ? `${sort}.${name}` : name;

/** How the column of a split is written in templates: what is called like it goes before it. */
export function columnInTemplates(
  { measures, inputs }: Pick<Project, "measures" | "inputs">,
  column: string,
): string {
  const isTaken = isRole(column) || [...measures, ...inputs].some(({ name }) => sameName(name, column));
  return isTaken ? `column.${column}` : column;
}

/** The texts of a visual that can hold names in braces. */
export const templatesOf = (visual: Visual): string[] => [
  visual.title,
  visual.subtitle,
  ...Object.values(visual.dials).filter((d): d is string => typeof d === "string"),
];

/** Gives a name another one in all templates of a visual, which is a draft. */
export function renameInTemplatesOf(visual: Visual, from: string, to: string): void {
  visual.title = renameInTemplate(visual.title, from, to);
  visual.subtitle = renameInTemplate(visual.subtitle, from, to);
  for (const [key, dial] of Object.entries(visual.dials))
    if (typeof dial === "string") visual.dials[key] = renameInTemplate(dial, from, to);
}

/** Whether a template of a visual writes a measure or an input. */
export function templatesName(visual: Visual, sort: "measure" | "input", name: string): boolean {
  const written = nameInTemplates(sort, name);
  return templatesOf(visual).some((t) => namesInTemplate(t).some((n) => sameName(n, written)));
}
