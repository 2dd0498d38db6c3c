import { NO_VALUE } from "../base/number-format";
import { own } from "../base/own";
import { namesInTemplate, type TemplateNames, type TemplateValue } from "../base/template";
import { todayIn } from "../base/today";
import type { Filter, QueryInput, Result } from "../plan/query";
import { wordsOf } from "../project/conventions";
import { homeTableOf } from "../project/home-table";
import type { Board, Measure, Project, Tile } from "../project/schema";
import { nameInTexts } from "../project/templates";
import { filterText } from "../rows/filter-text";
import { inTemplates } from "../rows/read-result";
import { type BoardState, filtersOf, inputsOf, pickedFilters, seenVisual, settingIn } from "./board-state";
import { pickedNames, tableKnows } from "./picks";
import { columnOf, keepsAll } from "./settings";

type TextTile = Extract<Tile, { type: "text" }>;
/** What an answer to a text's query is: null while it is awaited. */
type AnswerTo = (query: QueryInput) => Result | { error: string } | null;

/** Where a text stands: on a board as its reader has it. */
export interface TextGround {
  project: Project;
  board: Board;
  state: BoardState;
}

/** The filters that reach a text: those of controls that do not leave it, and what is picked. */
const filtersOfText = ({ id }: TextTile, { project, board, state }: TextGround): Filter[] => [
  ...filtersOf(board.controls, state, id),
  ...pickedFilters(state.picks, state, project),
];

/** The query for a measure that a text writes: its value over the rows that the text's filters keep. */
function textQuery(measure: Measure, tile: TextTile, ground: TextGround): QueryInput {
  const { project, state } = ground;
  const table = homeTableOf(measure, project);
  const known = (f: Filter) => table !== null && tableKnows(table, f.column, project);
  return {
    ...(table === null ? {} : { table }),
    measures: [{ id: measure.name }],
    filters: filtersOfText(tile, ground).filter(known),
    inputs: inputsOf(project.inputs, state),
  };
}

/** The measures that a text writes. */
export function measuresOfText({ text }: TextTile, { measures }: Pick<Project, "measures">): Measure[] {
  const named = new Set(namesInTemplate(text).map((n) => n.toLowerCase()));
  return measures.filter((m) => named.has(nameInTexts("measure", m.name).toLowerCase()));
}

/** What a text asks: the value of each measure that it writes. */
export const textQueries = (tile: TextTile, ground: TextGround): QueryInput[] =>
  measuresOfText(tile, ground.project).map((m) => textQuery(m, tile, ground));

/** The filters that are set and leave a text whole: they do not reach it, or none of its measures knows them. */
export function wholeForText(tile: TextTile, { project, board, state }: TextGround): string[] {
  const tables = measuresOfText(tile, project).flatMap((m) => homeTableOf(m, project) ?? []);
  if (tables.length === 0) return [];
  return board.controls.flatMap((c) => {
    if (c.type !== "filter" || keepsAll(settingIn(state, c))) return [];
    const isKnown = tables.some((t) => tableKnows(t, columnOf(c), project));
    return c.leaves.includes(tile.id) || !isKnown ? [c.label] : [];
  });
}

/** What is picked on a board, by its names alone: "North Quay · 2025". */
const pickedWords = ({ state, project }: TextGround): string =>
  state.picks
    .flatMap((p) => {
      const visual = project.visuals.find((v) => v.id === p.visual);
      return visual ? pickedNames(p, seenVisual(visual, state), project) : [];
    })
    .join(" · ");

/** What the names in a text of a board stand for: inputs, measures, what is picked and filtered, and today. */
export function textNames(tile: TextTile, ground: TextGround, answerTo: AnswerTo): TemplateNames {
  const { project, state } = ground;
  const { all } = wordsOf(project);
  const values = inputsOf(project.inputs, state);
  const today = todayIn(project.conventions.timeZone);
  const filters = filtersOfText(tile, ground).map(filterText).join(", ");
  const measured = (m: Measure): TemplateValue => {
    const answer = answerTo(textQuery(m, tile, ground));
    if (!answer) return "…";
    if ("error" in answer) return NO_VALUE;
    const now = own(answer.totals, m.name) ?? null;
    return now === null ? { value: null, format: m.format } : inTemplates(now, m.format);
  };
  return Object.fromEntries<TemplateValue>([
    ...project.inputs.map((i): [string, TemplateValue] => [
      nameInTexts("input", i.name),
      inTemplates(own(values, i.name) ?? i.value, i.format),
    ]),
    ...measuresOfText(tile, project).map((m): [string, TemplateValue] => [
      nameInTexts("measure", m.name),
      measured(m),
    ]),
    ["picked", pickedWords(ground) || all],
    ["filters", filters || all],
    ["today", { from: today, to: today, text: today }],
  ]);
}

/** What a text of a board could write, with what it is: for who writes one. */
export function namesForTexts(project: Project): TemplateNames {
  const today = todayIn(project.conventions.timeZone);
  return Object.fromEntries<TemplateValue>([
    ...project.measures.map((m): [string, TemplateValue] => [
      nameInTexts("measure", m.name),
      { value: null, format: m.format },
    ]),
    ...project.inputs.map((i): [string, TemplateValue] => [
      nameInTexts("input", i.name),
      inTemplates(i.value, i.format),
    ]),
    ["picked", wordsOf(project).all],
    ["filters", wordsOf(project).all],
    ["today", { from: today, to: today, text: today }],
  ]);
}
