import type { Filter, QueryInput } from "@/core/plan/query";
import { type BoardState, filtersOf, inputsOf, pickedFilters, touchedBy } from "@/core/view/board-state";
import { toQuery } from "@/core/view/query";
import { textQueries } from "@/core/view/text-names";
import type { Presented } from "./board-controls";

/** So long a reader does nothing before what may come next is made ready, in milliseconds. */
const SETTLED = 800;

/** Controls come first among the columns by which a board is filtered; beyond so many a pick is a scan. */
const MOST_TOUCHED = 50;

/** What a board may be asked: its queries, by what they may be filtered, and how they are now. */
export interface Preparing {
  board: string;
  queries: QueryInput[];
  touched: ReturnType<typeof touchedBy>;
  now: Filter[];
}

/**
 * Says what a board may be asked once its reader has done nothing for a while, so that it is answered without
 * a scan; nothing twice.
 */
export class Preparation {
  private timer: ReturnType<typeof setTimeout> | undefined;
  private said = "";

  constructor(
    private readonly presented: Presented,
    private readonly send: (asked: Preparing) => void,
  ) {}

  /** All stands as the state has it. */
  readonly settled = (state: BoardState): void => {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => this.say(state), SETTLED);
  };

  stop(): void {
    clearTimeout(this.timer);
  }

  private say(state: BoardState): void {
    const { board, project } = this.presented;
    const inputs = inputsOf(project.inputs, state);
    const whole = { project, board: { ...board, controls: [] }, state: { ...state, picks: [] } };
    const queries = board.tiles.flatMap((tile) => {
      if (tile.type === "text") return textQueries(tile, whole);
      const visual = tile.type === "visual" && project.visuals.find((v) => v.id === tile.visual);
      return (visual && toQuery(visual, project, [], inputs)) || [];
    });
    const touched = touchedBy(board, project).slice(0, MOST_TOUCHED);
    if (queries.length === 0 || touched.length === 0) return;
    const now = [...filtersOf(board.controls, state), ...pickedFilters(state.picks, state, project)];
    const asked = { board: board.id, queries, touched, now };
    const text = JSON.stringify(asked);
    if (text === this.said) return;
    this.said = text;
    this.send(asked);
  }
}
