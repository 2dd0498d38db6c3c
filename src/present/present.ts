import { own } from "@/core/base/own";
import type { Value } from "@/core/base/value";
import type { QueryInput } from "@/core/plan/query";
import type { Board, Control, Input, Project, Tile, Visual } from "@/core/project/schema";
import { GAP, ROW_HEIGHT, tileStyle } from "@/core/project/tile-layout";
import { subjectOf } from "@/core/rows/row-key";
import type { VisualData } from "@/core/rows/visual-data";
import {
  type BoardAction,
  type BoardState,
  boardReducer,
  chosenAlone,
  chosenIn,
  type FilterOfBoard,
  filterForSplit,
  filtersOf,
  inputsOf,
  UNTOUCHED,
} from "@/core/view/board-state";
import { type Choice, choicesIn, choicesQuery } from "@/core/view/column-choices";
import type { Design } from "@/core/view/picture";
import { toQuery } from "@/core/view/query";
import { toVisualData } from "@/core/view/visual-data";
import type { StartPicture } from "@/render/painter/live";
import type { Answers } from "./answers";
import { element, sign } from "./elements";
import { FilterView } from "./filter-view";
import { type InputView, inputView } from "./input-view";
import { VisualTile } from "./visual-tile";

/** A board with the document that it is of. */
export interface Presented {
  project: Project;
  board: Board;
}

export interface PresentOptions {
  /** From where what it shows is answered. */
  answers: Answers;
  /** What paints its visuals. */
  start: StartPicture;
  theme: "light" | "night";
  /** Whether marks move; asked at every change. */
  wantsMotion: () => boolean;
  /** Called by a button for it; no button where there is nothing to close to. */
  onClose?: () => void;
}

const designOf = ({ project: { palettes, finishes, pictures } }: Presented): Design => ({
  palettes,
  finishes,
  pictures,
});

/**
 * A board without its editor, kept alive in a page element without any framework: its tiles, controls and
 * texts, and the state of a reader, which nothing saves.
 */
export class PresentedBoard {
  private state: BoardState = UNTOUCHED;
  private readonly tiles = new Map<string, { tile: Tile; view: VisualTile }>();
  private readonly filters = new Map<string, { control: FilterOfBoard; view: FilterView }>();
  private readonly inputs = new Map<string, { input: Input; view: InputView }>();
  /** What each visual shows, and what it was made of. */
  private readonly known = new Map<string, { of: unknown[]; data: VisualData }>();
  private design: Design;

  constructor(
    private readonly root: HTMLElement,
    private presented: Presented,
    private options: PresentOptions,
  ) {
    this.design = designOf(presented);
    this.write();
    this.show();
  }

  /** Shows what became of the board; what its reader chose stays. */
  update(presented: Presented, options: PresentOptions): void {
    const isSame = presented.project === this.presented.project && presented.board === this.presented.board;
    if (options.answers !== this.options.answers) this.options.answers.stop();
    this.options = options;
    if (!isSame) {
      this.presented = presented;
      this.design = designOf(presented);
      this.clear();
      this.write();
    }
    this.show();
  }

  dispose(): void {
    this.options.answers.stop();
    this.clear();
    this.root.replaceChildren();
  }

  private clear(): void {
    for (const { view } of this.tiles.values()) view.dispose();
    for (const held of [this.tiles, this.filters, this.inputs, this.known]) held.clear();
  }

  private act(action: BoardAction): void {
    this.state = boardReducer(this.state, action);
    this.show();
  }

  private write(): void {
    const { board } = this.presented;
    const { onClose } = this.options;
    const controls = board.controls.flatMap((control) => this.controlOf(control) ?? []);
    const close = onClose
      ? [
          element(
            "button",
            {
              type: "button",
              class: "icon-button board-close",
              "aria-label": "Close",
              title: "Close (Escape)",
              onclick: onClose,
            },
            sign("close", 16),
          ),
        ]
      : [];
    const head = element(
      "header",
      { class: "board-head" },
      element("h1", {}, board.name),
      ...controls,
      ...close,
    );
    const ordered = board.tiles.toSorted((a, b) => a.y - b.y || a.x - b.x);
    const grid = element("div", { class: "board-grid" }, ...ordered.map((tile) => this.tileOf(tile)));
    Object.assign(grid.style, { gridAutoRows: `${ROW_HEIGHT}px`, gap: `${GAP}px` });
    const body = element(
      "div",
      { class: "board-body", role: "region", "aria-label": "Board", tabindex: 0 },
      grid,
    );
    if (board.tiles.length === 0)
      body.replaceChildren(element("p", { class: "board-empty" }, "This board is empty."));
    this.root.replaceChildren(head, body);
  }

  private controlOf(control: Control): HTMLElement | null {
    if (control.type === "filter") {
      const view = new FilterView(control, (values) =>
        this.act({ type: "choose", control: control.id, values }),
      );
      this.filters.set(control.id, { control, view });
      return view.root;
    }
    const input = this.presented.project.inputs.find((i) => i.id === control.input);
    if (!input) return null;
    const view = inputView(input, (value) => this.act({ type: "set input", name: input.name, value }));
    this.inputs.set(control.id, { input, view });
    return view.root;
  }

  private tileOf(tile: Tile): HTMLElement {
    const cell = element("div", { class: "board-tile" });
    for (const [name, value] of Object.entries(tileStyle(tile))) cell.style.setProperty(name, value);
    if (tile.type === "visual" && this.visualOf(tile.visual)) {
      const view = new VisualTile(this.options.start, this.options.wantsMotion);
      this.tiles.set(tile.id, { tile, view });
      cell.append(view.root);
    } else {
      const text =
        tile.type === "text" ? tile.text || "An empty text." : "The visual of this tile was removed.";
      cell.append(element("div", { class: "board-text" }, text));
    }
    return cell;
  }

  private visualOf(id: string): Visual | undefined {
    return this.presented.project.visuals.find((v) => v.id === id);
  }

  /** Shows the state as it is now, with the answers that are there, and asks for the others. */
  private show = (): void => {
    const { project, board } = this.presented;
    const { answers, theme } = this.options;
    const filters = filtersOf(board.controls, this.state);
    const inputs = inputsOf(project.inputs, this.state);
    const asked: QueryInput[] = [];
    const answerTo = (query: QueryInput | null) => {
      if (query) asked.push(query);
      return query && answers.of(query);
    };
    const choicesOf = (table: string, column: string, by?: FilterOfBoard["by"]): Choice[] => {
      return choicesIn(answerTo(choicesQuery(table, column, by)), by, project);
    };
    for (const { tile, view } of this.tiles.values()) {
      const visual = tile.type === "visual" ? this.visualOf(tile.visual) : undefined;
      if (!visual) continue;
      const query = toQuery(visual, project, filters, inputs);
      const answer = answerTo(query);
      const before = this.known.get(visual.id);
      const pending = query !== null && answer === null;
      const of = [answer, JSON.stringify([filters, inputs])];
      const isSame = before && (pending || before.of.every((x, i) => x === of[i]));
      const data = isSame ? before.data : toVisualData(visual, project, answer, { inputs, filters });
      if (!isSame) this.known.set(visual.id, { of, data });
      const control = filterForSplit(visual, board, project);
      view.show({ visual, data, design: this.design, theme, pending, onPick: this.pickFor(control) });
    }
    for (const { control, view } of this.filters.values())
      view.show(choicesOf(control.table, control.column, control.by), chosenIn(this.state, control));
    for (const { input, view } of this.inputs.values()) {
      const value = own(inputs, input.name) ?? input.value;
      view.show(value, this.inputChoices(input, choicesOf));
    }
    answers.ask(asked, this.show);
  };

  /** What a pick does: it sets the board's filter on the same column, or takes it back. */
  private pickFor(control: FilterOfBoard | undefined) {
    if (!control) return null;
    return (key: Parameters<typeof subjectOf>[0]) => {
      const subject = subjectOf(key);
      if (subject.type !== "category") return;
      const values = chosenAlone(chosenIn(this.state, control), subject.value);
      this.act({ type: "choose", control: control.id, values });
    };
  }

  private inputChoices(
    { choices, choicesFrom, type }: Input,
    choicesOf: (table: string, column: string) => Choice[],
  ): Value[] | null {
    if (!choicesFrom) return choices.length > 0 ? choices : null;
    const wanted = type === "number" ? "number" : "string";
    return choicesOf(choicesFrom.table, choicesFrom.column)
      .map((c) => c.value)
      .filter((v) => typeof v === wanted);
  }
}
