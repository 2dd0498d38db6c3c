import { own, withOwn } from "../base/own";
import type { Value } from "../base/value";
import type { Filter, ListFilter } from "../plan/query";
import type { Named } from "../project/names";
import type { Board, Control, Project, Setting, Tile, Visual } from "../project/schema";
import type { RowKey, Side } from "../rows/row-key";
import { answersTo, columnOfPick, filterOfPick, type Picked, type PickOf, pickedAfter } from "./picks";
import {
  allOf,
  columnOf,
  type FilterOfBoard,
  filterOfSetting,
  isOfForm,
  isSameSetting,
  keepsAll,
} from "./settings";
import { spoken } from "./spoken";
import { steppedVisual } from "./steps";

/**
 * What a reader has changed on a board; nothing of it is saved, and what is missing stands as the
 * board has it.
 */
export interface BoardState {
  /** What filters are set to, by the id of the control. */
  set: Readonly<Record<string, Setting>>;
  /** The values of inputs, by their name. */
  inputs: Readonly<Record<string, Value>>;
  /** What is picked on visuals, in the order in which it was. */
  picks: readonly Picked[];
  /** The categories that were stepped down from, by the id of the visual. */
  steps: Readonly<Record<string, readonly RowKey[]>>;
}

/** The state of a board whose reader has changed nothing. */
export const UNTOUCHED: BoardState = { set: {}, inputs: {}, picks: [], steps: {} };

/** What a reader does on a board. */
export type BoardAction =
  | { type: "set filter"; control: string; setting: Setting }
  | { type: "set input"; name: string; value: Value }
  | ({ type: "pick" } & PickOf)
  /** Whether the others light up the part of what is picked, or keep only it. */
  | { type: "light up"; visual: string; side: Side; part: boolean }
  /** What is picked of one split of a visual, or all that is, is picked no more. */
  | { type: "let go"; visual?: string; side?: Side }
  /** From a category to the split below it, or back up to where so many steps were done. */
  | { type: "step down"; visual: string; key: RowKey }
  | { type: "step up"; visual: string; to: number }
  | { type: "become"; state: BoardState };

/** The state of a board after what a reader did. */
export function boardReducer(state: BoardState, action: BoardAction): BoardState {
  switch (action.type) {
    case "set filter":
      return { ...state, set: withOwn<Setting>(state.set, action.control, action.setting) };
    case "set input":
      return { ...state, inputs: withOwn<Value>(state.inputs, action.name, action.value) };
    case "pick":
      return { ...state, picks: pickedAfter(state.picks, action) };
    case "light up": {
      const { visual, side, part } = action;
      const changed = ({ part: _, ...p }: Picked): Picked => ({ ...p, ...(part ? { part } : {}) });
      const isIt = (p: Picked) => p.visual === visual && p.side === side;
      return { ...state, picks: state.picks.map((p) => (isIt(p) ? changed(p) : p)) };
    }
    case "let go": {
      const { visual, side } = action;
      const stays = (p: Picked) => visual !== undefined && (p.visual !== visual || p.side !== side);
      return { ...state, picks: state.picks.filter(stays) };
    }
    case "step down":
    case "step up": {
      const { visual } = action;
      const path = own(state.steps, visual) ?? [];
      const next = action.type === "step down" ? [...path, action.key] : path.slice(0, action.to);
      // What was picked there is of another split.
      const picks = state.picks.filter((p) => p.visual !== visual);
      return { ...state, picks, steps: withOwn<readonly RowKey[]>(state.steps, visual, next) };
    }
    case "become":
      return action.state;
  }
}

/** What a filter is set to now: by the reader, else by the board; one of another form than it has keeps all. */
export function settingIn(state: Pick<BoardState, "set">, control: FilterOfBoard): Setting {
  const setting = own(state.set, control.id) ?? control.begins;
  return isOfForm(control, setting) ? setting : allOf(control);
}

/** The columns by which a board is filtered: by its controls, then by picks on its visuals; each once. */
export function touchedBy(
  { controls, tiles }: Pick<Board, "controls" | "tiles">,
  project: Pick<Project, "visuals"> & Named,
): Pick<ListFilter, "column" | "by">[] {
  const named = ({ table, column, by }: { table: string; column: string; by?: ListFilter["by"] }) => ({
    column: `${table}.${column}`,
    ...(by ? { by } : {}),
  });
  const sides: Side[] = ["split", "series"];
  const all = [
    ...controls.flatMap((c) => (c.type === "filter" ? named(c) : [])),
    ...tiles.flatMap((tile) => {
      const visual = tile.type === "visual" && project.visuals.find((v) => v.id === tile.visual);
      const places = visual ? sides.map((side) => columnOfPick(spoken(visual), side, project)) : [];
      return places.flatMap((place) => (place ? named(place) : []));
    }),
  ];
  return all.filter((t, i) => all.findIndex((u) => u.column === t.column && u.by === t.by) === i);
}

/** The filters that a board's controls ask for; of a tile those that reach it. */
export function filtersOf(controls: Control[], state: Pick<BoardState, "set">, tile?: string): Filter[] {
  return controls.flatMap((control): Filter[] => {
    if (control.type !== "filter" || (tile !== undefined && control.leaves.includes(tile))) return [];
    const filter = filterOfSetting(control, settingIn(state, control));
    return filter ? [filter] : [];
  });
}

/**
 * The values of inputs that the reader changed; an input that was removed or renamed meanwhile has no
 * say any more.
 */
export function inputsOf(inputs: Project["inputs"], state: BoardState): Record<string, Value> {
  const known = Object.entries(state.inputs).filter(([name]) => inputs.some((i) => i.name === name));
  return Object.fromEntries(known);
}

/** What of a reader's state a board can begin with: of filters and inputs that differ from what they begin with. */
export function keepable(
  controls: Control[],
  inputs: Project["inputs"],
  state: BoardState,
): { set: { control: string; setting: Setting }[]; values: { input: string; value: Value }[] } {
  return {
    set: controls.flatMap((c) => {
      if (c.type !== "filter") return [];
      const setting = settingIn(state, c);
      return isSameSetting(setting, c.begins) ? [] : [{ control: c.id, setting }];
    }),
    values: controls.flatMap((c) => {
      const input = c.type === "input" && inputs.find((i) => i.id === c.input);
      const value = input ? own(state.inputs, input.name) : undefined;
      return input && value !== undefined && value !== input.value ? [{ input: input.id, value }] : [];
    }),
  };
}

/** A choice with a value more, or without it where it was chosen. */
export const toggled = (chosen: Value[], value: Value): Value[] =>
  chosen.includes(value) ? chosen.filter((v) => v !== value) : [...chosen, value];

/** The choice of a value alone, or of none where it was chosen alone already. */
export const chosenAlone = (chosen: Value[], value: Value): Value[] =>
  chosen.length === 1 && chosen[0] === value ? [] : [value];

/** A visual as a reader sees it, who may have stepped down in it. */
export const seenVisual = (visual: Visual, { steps }: Pick<BoardState, "steps">): Visual =>
  steppedVisual(visual, own(steps, visual.id) ?? []);

/** The filters that picks ask of others: for what is picked, and for what was stepped down from before. */
export const pickedFilters = (
  picks: readonly Picked[],
  state: Pick<BoardState, "steps">,
  project: Pick<Project, "visuals"> & Named,
): ListFilter[] =>
  picks.flatMap((p) => {
    const visual = project.visuals.find((v) => v.id === p.visual);
    const filter = visual && filterOfPick(p, seenVisual(visual, state), project);
    if (!visual || !filter) return [];
    const path = own(state.steps, visual.id) ?? [];
    const above = path.flatMap((key, i) => {
      const seen = steppedVisual(visual, path.slice(0, i));
      return filterOfPick({ visual: visual.id, side: "split", keys: [key] }, seen, project) ?? [];
    });
    return [...above, filter];
  });

/** What a tile's visual is filtered by: for all that it draws, and further for the part that is lit up in it. */
export interface TileFilters {
  all: Filter[];
  part: Filter[];
}

/**
 * The filters that a tile's visual has from its board: those of controls, and what is picked on other
 * visuals, where it does not stand aside. `canLight` says whether it can light up a part; else it keeps only
 * what is picked.
 */
export function tileFilters(
  { controls }: Pick<Board, "controls">,
  state: BoardState,
  tile: Extract<Tile, { type: "visual" }>,
  project: Pick<Project, "visuals"> & Named,
  canLight: boolean,
): TileFilters {
  const others = tile.aside ? [] : state.picks.filter((p) => p.visual !== tile.visual);
  const visual = project.visuals.find((v) => v.id === tile.visual);
  const isPart = (p: Picked) => canLight && p.part === true;
  const picked = (isIt: (p: Picked) => boolean) => pickedFilters(others.filter(isIt), state, project);
  const known = (f: Filter) => visual !== undefined && answersTo(visual, f.column, project);
  return {
    all: [...filtersOf(controls, state, tile.id), ...picked((p) => !isPart(p))],
    part: picked(isPart).filter(known),
  };
}

/** The filters of a tile that keeps only what is picked. */
export const filtersOfTile = (
  board: Pick<Board, "controls">,
  state: BoardState,
  tile: Extract<Tile, { type: "visual" }>,
  project: Pick<Project, "visuals"> & Named,
): Filter[] => tileFilters(board, state, tile, project, false).all;

/** The filters that are set and leave a tile whole: they do not reach it, or it has nothing that means their column. */
export function wholeFor(
  { controls }: Pick<Board, "controls">,
  state: BoardState,
  tile: Extract<Tile, { type: "visual" }>,
  project: Pick<Project, "visuals"> & Named,
): string[] {
  const visual = project.visuals.find((v) => v.id === tile.visual);
  return controls.flatMap((c) => {
    if (!visual || c.type !== "filter" || keepsAll(settingIn(state, c))) return [];
    return c.leaves.includes(tile.id) || !answersTo(visual, columnOf(c), project) ? [c.label] : [];
  });
}

/** How many tiles answer what is picked on others, stand aside, or have nothing that means it. */
export interface Answering {
  answer: number;
  aside: number;
  without: number;
}

/** How many of a board's tiles answer what is picked. */
export function answeringTiles(
  { tiles }: Pick<Board, "tiles">,
  state: Pick<BoardState, "picks" | "steps">,
  project: Pick<Project, "visuals"> & Named,
): Answering {
  const found = { answer: 0, aside: 0, without: 0 };
  const columns = state.picks.flatMap((p) =>
    pickedFilters([p], state, project).map(({ column }) => ({ visual: p.visual, column })),
  );
  for (const tile of tiles) {
    const visual = tile.type === "visual" && project.visuals.find((v) => v.id === tile.visual);
    const others = visual ? columns.filter((c) => c.visual !== visual.id) : [];
    if (!visual || tile.type !== "visual" || others.length === 0) continue;
    if (!others.some((c) => answersTo(visual, c.column, project))) found.without++;
    else if (tile.aside) found.aside++;
    else found.answer++;
  }
  return found;
}
