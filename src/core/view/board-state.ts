import { sameName } from "../base/names";
import { own, withOwn } from "../base/own";
import type { Value } from "../base/value";
import { meetingColumn, placesOf } from "../formula/meeting";
import type { Filter } from "../plan/query";
import { scopeOf } from "../project/names";
import type { Board, Control, Project, Visual } from "../project/schema";

/** A control that filters. */
export type FilterOfBoard = Extract<Control, { type: "filter" }>;

/**
 * What a reader has changed on a board; nothing of it is saved, and what is missing stands as the board has
 * it.
 */
export interface BoardState {
  /** What is chosen in filters, by the id of the control. */
  chosen: Readonly<Record<string, Value[]>>;
  /** The values of inputs, by their name. */
  inputs: Readonly<Record<string, Value>>;
}

/** The state of a board whose reader has changed nothing. */
export const UNTOUCHED: BoardState = { chosen: {}, inputs: {} };

/** What a reader does on a board. */
export type BoardAction =
  | { type: "choose"; control: string; values: Value[] }
  | { type: "set input"; name: string; value: Value };

/** The state of a board after what a reader did. */
export function boardReducer(state: BoardState, action: BoardAction): BoardState {
  switch (action.type) {
    case "choose":
      return { ...state, chosen: withOwn(state.chosen, action.control, action.values) };
    case "set input":
      return { ...state, inputs: withOwn<Value>(state.inputs, action.name, action.value) };
  }
}

/** What is chosen in a filter now: the reader's choice, else that of the board. Nothing chosen keeps all. */
export const chosenIn = (state: BoardState, control: FilterOfBoard): Value[] =>
  own(state.chosen, control.id) ?? control.chosen;

/** The columns by which a board's controls filter, each once. */
export function touchedBy(controls: Control[]): Pick<Extract<Filter, { in: Value[] }>, "column" | "by">[] {
  const all = controls.flatMap((c) =>
    c.type === "filter" ? [{ column: `${c.table}.${c.column}`, ...(c.by ? { by: c.by } : {}) }] : [],
  );
  return all.filter((t, i) => all.findIndex((u) => u.column === t.column && u.by === t.by) === i);
}

/** The filters that a board's controls ask for. */
export function filtersOf(controls: Control[], state: BoardState): Filter[] {
  return controls.flatMap((control): Filter[] => {
    if (control.type !== "filter") return [];
    const values = chosenIn(state, control);
    if (values.length === 0) return [];
    return [
      { column: `${control.table}.${control.column}`, ...(control.by ? { by: control.by } : {}), in: values },
    ];
  });
}

/**
 * The values of inputs that the reader changed; an input that was removed or renamed meanwhile has no say any
 * more.
 */
export function inputsOf(inputs: Project["inputs"], state: BoardState): Record<string, Value> {
  const known = Object.entries(state.inputs).filter(([name]) => inputs.some((i) => i.name === name));
  return Object.fromEntries(known);
}

/** A choice with a value more, or without it where it was chosen. */
export const toggled = (chosen: Value[], value: Value): Value[] =>
  chosen.includes(value) ? chosen.filter((v) => v !== value) : [...chosen, value];

/** The choice of a value alone, or of none where it was chosen alone already. */
export const chosenAlone = (chosen: Value[], value: Value): Value[] =>
  chosen.length === 1 && chosen[0] === value ? [] : [value];

/** The filter of a board that means the same column as a visual's split. */
export function filterForSplit(visual: Visual, board: Board, project: Project): FilterOfBoard | undefined {
  const table = project.measures.find((m) => m.id === visual.value)?.table;
  if (!visual.split || visual.split.by || !table) return undefined;
  const scope = scopeOf(project);
  const [place] = placesOf(scope, table, visual.split.column);
  return board.controls.find((c): c is FilterOfBoard => {
    if (c.type !== "filter" || c.by || !place) return false;
    const meeting = meetingColumn(scope, c.table, place);
    return meeting !== null && sameName(meeting.column, c.column);
  });
}
