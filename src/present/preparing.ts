import { needsPatterns } from "@/core/snapshot/needs-patterns";
import {
  type BoardAction,
  type BoardState,
  filtersOf,
  inputsOf,
  pickedFilters,
  touchedBy,
} from "@/core/view/board-state";
import { toQuery } from "@/core/view/query";
import { textQueries } from "@/core/view/text-names";
import type { Answers } from "./answers";
import type { Presented } from "./board-controls";
import type { CellsSource, Preparing } from "./cells-source";

/** So long a reader does nothing before what may come next is made ready, in milliseconds. */
const SETTLED = 800;

/** Controls come first among the columns by which a board is filtered; beyond so many a pick is a scan. */
const MOST_TOUCHED = 50;

/**
 * Says what a board may be asked once its reader has done nothing for a while, so that it is answered without
 * a scan; nothing twice. Once its reader filters, what answers that comes into the page.
 */
export class Preparation {
  private timer: ReturnType<typeof setTimeout> | undefined;
  private said = "";
  /** How all stood last. */
  private standing: BoardState | null = null;
  private asked: Preparing | null = null;
  /** Whether its reader filters, so that the next answers may be such that a page can give itself. */
  private isFiltering = false;
  private taken: Preparing | null = null;
  private isInPage = false;
  /** The questions that those in the page tell as well as any, however the board is filtered. */
  private settledFor = "";
  private taking: AbortController | null = null;

  constructor(
    private readonly presented: Presented,
    private readonly cells: CellsSource,
    private readonly answers: Answers,
  ) {}

  /** All stands as the state has it. */
  readonly settled = (state: BoardState): void => {
    clearTimeout(this.timer);
    this.standing = state;
    this.timer = setTimeout(() => this.say(state), SETTLED);
  };

  /** The reader did something. */
  acted({ type }: BoardAction): void {
    // Each value of an input has cells of its own: they would come and go unused.
    if (type === "set input") this.isFiltering = false;
    if (type !== "set filter" && type !== "pick") return;
    this.isFiltering = true;
    // Who filters at once does not wait for a rest.
    if (this.asked === null && this.standing) this.say(this.standing);
    else this.take();
  }

  stop(): void {
    clearTimeout(this.timer);
    this.taking?.abort();
  }

  /** Has the cells that were gathered come into the page. */
  private async take(): Promise<void> {
    const { asked, presented, answers, cells } = this;
    if (!this.isFiltering || asked === null || asked === this.taken) return;
    // Others are of use only where those that came do not tell.
    const questions = JSON.stringify({ ...asked, now: [] });
    if (this.isInPage && (!answers.isBeyondPage || this.settledFor === questions)) return;
    // What matches regular expressions is too large to come along.
    if (needsPatterns(presented.project)) return;
    this.taken = asked;
    this.taking?.abort();
    const taking = new AbortController();
    this.taking = taking;
    try {
      const [bytes, { cellsInPage }] = await Promise.all([
        cells.bytes(asked, taking.signal),
        import("./cells-in-page"),
      ]);
      if (!bytes || taking.signal.aborted) return;
      const { answer, isSettled } = cellsInPage(bytes, presented.project);
      answers.answerInPage(answer);
      this.isInPage = true;
      this.settledFor = isSettled ? questions : "";
    } catch {
      // The server answers, as before; the next time that its reader filters, the page asks for them again.
      if (this.taking === taking) this.taken = null;
    }
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
    this.asked = asked;
    this.cells.prepare(asked);
    this.take();
  }
}
