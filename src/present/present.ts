import type { QueryInput } from "@/core/plan/query";
import type { Tile, Visual } from "@/core/project/schema";
import { GAP, ROW_HEIGHT, tileStyle } from "@/core/project/tile-layout";
import type { VisualData } from "@/core/rows/visual-data";
import {
  type BoardAction,
  type BoardState,
  boardReducer,
  filtersOfTile,
  inputsOf,
  UNTOUCHED,
} from "@/core/view/board-state";
import { choicesIn, choicesQuery } from "@/core/view/column-choices";
import { isPickable } from "@/core/view/picks";
import type { Design } from "@/core/view/picture";
import { toQuery } from "@/core/view/query";
import { toVisualData } from "@/core/view/visual-data";
import type { StartPicture } from "@/render/painter/live";
import type { Answers } from "./answers";
import { BoardControls, type ChoicesOf, type Presented } from "./board-controls";
import { element, sign } from "./elements";
import { PickedRow } from "./picked-row";
import { type Shown, VisualTile } from "./visual-tile";

export interface PresentOptions {
  /** From where what it shows is answered. */
  answers: Answers;
  /** What paints its visuals. */
  start: StartPicture;
  theme: "light" | "night";
  /** Whether marks move; asked at every change. */
  wantsMotion: () => boolean;
  /** What the reader has changed already. */
  state?: BoardState;
  /** What an address asked for that is left out, in words. */
  left?: string[];
  /** Told of what its reader changes. */
  onState?: (state: BoardState, action: BoardAction) => void;
  /** Told once all stands, each time: then what may come next can be made ready. */
  onSettled?: (state: BoardState) => void;
  /** An address at which others find the state; no link can be copied where there is none. */
  link?: (state: BoardState) => string;
  /** Called by a button for it; no button where there is nothing to close to. */
  onClose?: () => void;
}

type VisualOnTile = Extract<Tile, { type: "visual" }>;

const designOf = ({ project: { palettes, finishes, pictures } }: Presented): Design => ({
  palettes,
  finishes,
  pictures,
});

/** What the elements of a board are made of; all else of a document only changes what they show. */
const madeOf = ({ board, project }: Presented): string =>
  JSON.stringify([
    board,
    board.controls.map((c) => {
      const input = c.type === "input" && project.inputs.find((i) => i.id === c.input);
      return input && { ...input, value: null };
    }),
    board.tiles.map((t) => t.type === "visual" && project.visuals.some((v) => v.id === t.visual)),
  ]);

/**
 * A board without its editor, kept alive in a page element without any framework: its tiles, controls and
 * texts, and the state of a reader, which nothing saves.
 */
export class PresentedBoard {
  private state: BoardState;
  private readonly tiles = new Map<string, { tile: VisualOnTile; view: VisualTile }>();
  private controls: BoardControls | null = null;
  private picked: PickedRow | null = null;
  /** What each tile shows, and what it was made of. */
  private readonly known = new Map<string, { of: unknown[]; data: VisualData }>();
  private design: Design;

  constructor(
    private readonly root: HTMLElement,
    private presented: Presented,
    private options: PresentOptions,
  ) {
    this.state = options.state ?? UNTOUCHED;
    this.design = designOf(presented);
    document.addEventListener("keydown", this.escape);
    this.write();
    this.show();
  }

  /** Shows what became of the board; what its reader chose stays, but where another state is given. */
  update(presented: Presented, options: PresentOptions): void {
    const isSame =
      madeOf(presented) === madeOf(this.presented) &&
      JSON.stringify(options.left) === JSON.stringify(this.options.left) &&
      (options.onClose === undefined) === (this.options.onClose === undefined);
    if (options.answers !== this.options.answers) this.options.answers.stop();
    if (options.state) this.state = options.state;
    this.options = options;
    this.presented = presented;
    this.design = designOf(presented);
    if (!isSame) {
      this.clear();
      this.write();
    }
    this.show();
  }

  /** Shows another state, as going back in the history of a page asks for. */
  become(state: BoardState): void {
    this.state = state;
    this.show();
  }

  dispose(): void {
    document.removeEventListener("keydown", this.escape);
    this.options.answers.stop();
    this.clear();
    this.root.replaceChildren();
  }

  private clear(): void {
    for (const { view } of this.tiles.values()) view.dispose();
    for (const held of [this.tiles, this.known]) held.clear();
  }

  private readonly act = (action: BoardAction): void => {
    this.state = boardReducer(this.state, action);
    this.options.onState?.(this.state, action);
    this.show();
  };

  /** Lets go of all that is picked, before Escape leaves anything. */
  private readonly escape = (event: KeyboardEvent): void => {
    if (event.key !== "Escape" || event.defaultPrevented || this.state.picks.length === 0) return;
    if (document.querySelector(":popover-open, [role=dialog], [role=menu]")) return;
    event.preventDefault();
    this.act({ type: "let go" });
  };

  private write(): void {
    const { board } = this.presented;
    const { onClose, link } = this.options;
    this.controls = new BoardControls(this.presented, this.act);
    this.picked = new PickedRow({
      act: this.act,
      copy: link ? () => navigator.clipboard.writeText(link(this.state)) : null,
      focusOn: (visual) => {
        for (const { tile, view } of this.tiles.values()) if (tile.visual === visual) return view.focus();
      },
    });
    const close = onClose ? [closeButton(onClose, "Close", "Close (Escape)", "board-close")] : [];
    const head = element(
      "header",
      { class: "board-head" },
      element("h1", {}, board.name),
      ...this.controls.elements,
      ...close,
      ...this.leftOut(),
      this.picked.root,
      this.picked.status,
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

  /** One line that says what of the address does not hold here. */
  private leftOut(): HTMLElement[] {
    const { left = [] } = this.options;
    if (left.length === 0) return [];
    const note = element(
      "p",
      { class: "board-note", role: "status" },
      `Left out of the address: ${left.join(", ")}.`,
    );
    note.append(closeButton(() => note.remove(), "Close this note", "Close this note", "", 12));
    return [note];
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
    const { state, presented } = this;
    const { project } = presented;
    const { answers, onSettled } = this.options;
    const inputs = inputsOf(project.inputs, state);
    const asked: QueryInput[] = [];
    let isSettled = true;
    const answerTo = (query: QueryInput | null) => {
      if (query) asked.push(query);
      const answer = query && answers.of(query);
      if (query && !answer) isSettled = false;
      return answer;
    };
    const choicesOf: ChoicesOf = (table, column, by) =>
      choicesIn(answerTo(choicesQuery(table, column, by)), by, project);
    for (const { tile, view } of this.tiles.values()) {
      const visual = this.visualOf(tile.visual);
      if (visual) this.showTile({ tile, view, visual, inputs }, answerTo);
    }
    this.controls?.show(state, project, choicesOf);
    this.picked?.show(state, presented);
    answers.ask(asked, this.show);
    if (isSettled) onSettled?.(state);
  };

  private showTile(
    {
      tile,
      view,
      visual,
      inputs,
    }: { tile: VisualOnTile; view: VisualTile; visual: Visual; inputs: ReturnType<typeof inputsOf> },
    answerTo: (query: QueryInput | null) => ReturnType<Answers["of"]>,
  ): void {
    const { board, project } = this.presented;
    const filters = filtersOfTile(board, this.state, tile, project);
    const query = toQuery(visual, project, filters, inputs);
    const answer = answerTo(query);
    const before = this.known.get(tile.id);
    const pending = query !== null && answer === null;
    const of = [answer, visual, project, JSON.stringify([filters, inputs])];
    const isSame = before && (pending || before.of.every((x, i) => x === of[i]));
    const data = isSame ? before.data : toVisualData(visual, project, answer, { inputs, filters });
    if (!isSame) this.known.set(tile.id, { of, data });
    const lit = this.state.picks.findLast((p) => p.visual === visual.id) ?? null;
    const { design, options } = this;
    view.show({
      visual,
      data,
      design,
      theme: options.theme,
      pending,
      lit,
      onPick: this.pickOn(visual, data),
    });
  }

  /** What a pick on a visual does: the others answer, and it keeps its whole. */
  private pickOn(visual: Visual, data: VisualData): Shown["onPick"] {
    return ({ key, side }, more) => {
      const shown = (side === "series" ? data.series : data.rows).map((r) => r.key);
      if (isPickable(key)) this.act({ type: "pick", visual: visual.id, side, key, more, shown });
    };
  }
}

function closeButton(onclick: () => void, label: string, title: string, className: string, size = 16) {
  return element(
    "button",
    { type: "button", class: `icon-button ${className}`, "aria-label": label, title, onclick },
    sign("close", size),
  );
}
