import type { QueryInput } from "@/core/plan/query";
import type { Project, Visual } from "@/core/project/schema";
import type { CategoryOf } from "@/core/scene/marks";
import {
  type BoardAction,
  type BoardState,
  boardReducer,
  inputsOf,
  UNTOUCHED,
  wholeFor,
} from "@/core/view/board-state";
import type { Design } from "@/core/view/picture";
import { spoken } from "@/core/view/spoken";
import { changesSaid, type Headline, headlineOf } from "@/core/view/spoken-changes";
import { canStepDown, trailOf } from "@/core/view/steps";
import { textNames, wholeForText } from "@/core/view/text-names";
import type { StartPicture } from "@/render/painter/live";
import { rootOf } from "@/render/roots";
import { AddressedPicks } from "./addressed-picks";
import type { Answers } from "./answers";
import { BoardControls, type Presented } from "./board-controls";
import { BoardGrid, type Narrowness, type VisualOnTile } from "./board-grid";
import { BoardSheet } from "./board-sheet";
import { element, isSomethingOver, sign } from "./elements";
import { PickedRow } from "./picked-row";
import { failingProofs } from "./proof-notes";
import type { BehindAsked } from "./rows-sheet";
import { onScreen } from "./screen";
import { type TileGround, TilesData } from "./tile-data";
import { menuOf, type OnTile, pickOn, rowsItems } from "./tile-menu";
import type { VisualTile } from "./visual-tile";
import { startWalk, type Walking, walkButton } from "./walking";

export interface PresentOptions {
  /** From where what it shows is answered. */
  answers: Answers;
  /** What paints its visuals. */
  start: StartPicture;
  theme: "light" | "night";
  /** A type family that goes before those of its visuals, by its id. */
  family?: string | undefined;
  /** Whether it stands in one column; as the window has it where nothing is said. */
  narrow?: Narrowness;
  /** Whether marks move; asked at every change. */
  wantsMotion: () => boolean;
  /** What the reader has changed already. */
  state?: BoardState;
  /** What an address asked for that is left out, in words. */
  left?: string[];
  /** Told of what its reader changes; `live` while it goes on being turned. */
  onState?: (state: BoardState, action: BoardAction, live: boolean) => void;
  /** Told what is under the pointer of a visual, or was reached by keys; null where nothing is. */
  onHover?: (on: OnTile, met: CategoryOf | null) => void;
  /** Told once all stands, each time: then what may come next can be made ready. */
  onSettled?: (state: BoardState) => void;
  /**
   * An address at which others find the state (null: there is too much of it for one); no link can
   * be copied without.
   */
  link?: (state: BoardState) => string | null;
  /** Shows the rows behind something; nothing is offered where there are none. */
  onRows?: (asked: BehindAsked, project: Project) => Promise<void>;
  /** What stands in the place of tiles where there are none. */
  whenEmpty?: string;
  /** The walk through boards that goes on or can be begun; only where there is something to close to. */
  walking?: Walking;
  /** Called by a button for it; no button where there is nothing to close to. */
  onClose?: () => void;
}

/** How long what is turned must rest until the rest of a board is asked for, in milliseconds. */
const REST = 150;

const designOf = (
  { project: { palettes, finishes, pictures } }: Presented,
  { family }: PresentOptions,
): Design => ({ palettes, finishes, pictures, family });

/** What the elements of a board are made of; all else of a document only changes what they show. */
const madeOf = ({ board, project }: Presented): string =>
  JSON.stringify([
    board,
    board.controls.map((c) => {
      const input = c.type === "input" && project.inputs.find((i) => i.id === c.input);
      return input && { ...input, value: null };
    }),
    board.tiles.map((t) => {
      if (t.type === "picture") return project.pictures.find((p) => p.id === t.picture);
      return t.type === "visual" && project.visuals.some((v) => v.id === t.visual);
    }),
  ]);

/**
 * A board without its editor, kept alive in a page element without any framework: its tiles, controls and
 * texts, and the state of a reader, which nothing saves.
 */
export class PresentedBoard {
  private state: BoardState;
  private grid: BoardGrid | null = null;
  private sheet: BoardSheet | null = null;
  private controls: BoardControls | null = null;
  /** Whether all that the board shows is answered, and what waits for that. */
  private isSettled = false;
  /** Whether what an address asked for was held to the values that there are. */
  private isLookedThrough = false;
  private readonly addressed: AddressedPicks;
  /** Whether answers cannot be had now, and of when the last ones are. */
  private isAway = false;
  private answeredAt = "";
  /** The values that no row has, in words, and what is said of all that is left out. */
  private absent: string[] = [];
  private noted = "";
  /** Says what a reader's act changed, once all that answers it is there. */
  private readonly said = element("p", { class: "board-said", role: "status" });
  /** The numbers of the visuals by tile: as they are now, and as they were before the act that is to be told. */
  private headlines = new Map<string, Headline | null>();
  private toldFrom: ReadonlyMap<string, Headline | null> | null = null;
  private readonly note = element("p", { class: "board-note", role: "status" });
  private waiting: BoardAction | null = null;
  /** Whether something is being turned, and what asks for the rest once it rests. */
  private isTurning = false;
  private resting: ReturnType<typeof setTimeout> | undefined;
  private picked: PickedRow | null = null;
  private screen: ReturnType<typeof onScreen> | null = null;
  private endWalk: (() => void) | null = null;
  private readonly asOf = element("span", {
    class: "board-as-of",
    title: "When this board was last answered; it follows what is saved by itself",
  });
  private readonly tiles = new TilesData();
  /** Where keys are heard: the page, or the shadow root in which the board stands. */
  private readonly ears: Document | ShadowRoot;
  private design: Design;

  constructor(
    private readonly root: HTMLElement,
    private presented: Presented,
    private options: PresentOptions,
  ) {
    this.state = options.state ?? UNTOUCHED;
    this.addressed = new AddressedPicks(this.state);
    this.design = designOf(presented, options);
    this.ears = rootOf(root);
    this.ears.addEventListener("keydown", this.escape as EventListener);
    this.write();
    this.show();
  }

  /** From where the board is answered now. */
  get answers(): Answers {
    return this.options.answers;
  }

  /** Shows what became of the board; what its reader chose stays, but where another state is given. */
  update(presented: Presented, options: PresentOptions): void {
    const isSame =
      madeOf(presented) === madeOf(this.presented) &&
      JSON.stringify(options.walking) === JSON.stringify(this.options.walking) &&
      (options.onClose === undefined) === (this.options.onClose === undefined);
    if (options.answers !== this.options.answers) this.options.answers.stop();
    if (options.state) this.state = options.state;
    this.options = options;
    this.presented = presented;
    this.design = designOf(presented, options);
    if (!isSame) {
      this.clear();
      this.write();
    }
    this.writeNote();
    this.show();
  }

  /** Shows another state, as going back in the history of a page asks for. */
  become(state: BoardState): void {
    this.state = state;
    this.show();
  }

  dispose(): void {
    clearTimeout(this.resting);
    this.ears.removeEventListener("keydown", this.escape as EventListener);
    this.options.answers.stop();
    this.clear();
    this.root.replaceChildren();
  }

  private clear(): void {
    for (const part of [this.screen, this.grid, this.sheet]) part?.dispose();
    this.endWalk?.();
    this.tiles.clear();
  }

  private readonly act = (action: BoardAction, live = false): void => {
    // While something is turned, one state after the other is shown whole; what came between is left out.
    this.isTurning = live;
    this.waiting = live && !this.isSettled ? action : null;
    if (this.waiting) return;
    this.state = boardReducer(this.state, action);
    this.toldFrom ??= new Map(this.headlines);
    this.options.onState?.(this.state, action, live);
    this.show();
  };

  /** Lets go of all that is picked, before Escape leaves anything. */
  private readonly escape = (event: KeyboardEvent): void => {
    if (event.key !== "Escape" || event.defaultPrevented || this.state.picks.length === 0) return;
    if (isSomethingOver(this.ears)) return;
    event.preventDefault();
    this.act({ type: "let go" });
  };

  private write(): void {
    const { board } = this.presented;
    const { onClose, link, whenEmpty = "This board is empty." } = this.options;
    this.controls = new BoardControls(this.presented, { act: this.act, refresh: this.show });
    this.picked = new PickedRow({
      act: this.act,
      copy: link
        ? async () => {
            const address = link(this.state);
            if (address === null) throw new Error("Too much is picked for a link");
            // Only pages that came safely may write to the clipboard.
            if (!navigator.clipboard) throw new Error("Not copied: take it from the address bar");
            await navigator.clipboard.writeText(address);
          }
        : null,
      focusOn: (visual) => {
        for (const { tile, view } of this.grid?.visuals.values() ?? [])
          if (tile.visual === visual) return view.focus();
      },
    });
    this.screen = onClose ? onScreen(this.root) : null;
    this.root.classList.toggle("board-fills", onClose !== undefined);
    const { walking } = this.options;
    this.endWalk = walking?.walk
      ? startWalk(walking.walk, board.id, (to) => this.options.walking?.onGo(to))
      : null;
    const close = onClose
      ? [
          ...(walking && walking.boards.length > 1 ? walkButton(board.id, walking) : []),
          ...(this.screen?.button ? [this.screen.button] : []),
          closeButton(onClose, "Close", "Close (Escape)", "board-close"),
        ]
      : [];
    const head = element(
      "header",
      { class: "board-head", part: "head" },
      element("h1", {}, board.name),
      ...this.controls.elements,
      this.asOf,
      ...close,
      this.note,
      this.picked.root,
      this.picked.status,
      this.said,
    );
    this.grid = new BoardGrid(board, this.presented.project, this.options, whenEmpty);
    this.sheet = new BoardSheet(this.root, board);
    this.sheet.root.append(head, this.grid.root);
    this.root.replaceChildren(this.sheet.root);
    this.tellTime();
    this.writeNote();
  }

  /** Says in one line what of the address does not hold here. */
  private writeNote(): void {
    const left = [...(this.options.left ?? []), ...this.absent];
    const text = left.length > 0 ? `Left out of the address: ${left.join(", ")}.` : "";
    if (text === this.noted) return;
    this.noted = text;
    this.tell(text);
  }

  /** A line above the board, with a cross. */
  private tell(text: string): void {
    const cross = closeButton(
      () => this.note.replaceChildren(),
      "Close this note",
      "Close this note",
      "",
      12,
    );
    this.note.replaceChildren(...(text ? [element("span", {}, text), cross] : []));
  }

  private visualOf(id: string): Visual | undefined {
    return this.presented.project.visuals.find((v) => v.id === id);
  }

  /** Shows the state as it is now, with the answers that are there, and asks for the others. */
  private show = (): void => {
    const { state, presented } = this;
    const { project } = presented;
    const { answers, onSettled } = this.options;
    const asked: QueryInput[] = [];
    const further: QueryInput[] = [];
    this.isSettled = true;
    const answer = (query: QueryInput) => {
      asked.push(query);
      const found = answers.of(query);
      if (!found) this.isSettled = false;
      return found;
    };
    const later = (query: QueryInput) => {
      further.push(query);
      return answers.of(query);
    };
    this.grid?.paint(this.options.theme);
    const inputs = inputsOf(project.inputs, state);
    const ground = { ...presented, state, inputs, design: this.design, theme: this.options.theme, answer };
    const shown = [...(this.grid?.visuals.values() ?? [])].flatMap(({ tile, view }) => {
      const visual = this.visualOf(tile.visual);
      return visual ? [{ tile, view, visual }] : [];
    });
    // What the page answers itself is there before anything waits for it.
    if (answers.hasPage)
      answers.findInPage(shown.flatMap(({ tile, visual }) => this.tiles.queries(tile, visual, ground)));
    this.headlines = new Map();
    for (const one of shown) this.showTile(one, ground, later);
    for (const { tile, view } of this.grid?.texts.values() ?? []) {
      const whole = wholeForText(tile, ground).map((label) => `whole for ${label}`);
      view.show(tile.text, textNames(tile, ground, answer), whole);
    }
    this.controls?.show(state, presented, { answer, later });
    this.picked?.show(state, presented);
    if (!this.isSettled && answers.findInPage(asked)) {
      this.show();
      return;
    }
    for (const query of this.addressed.questions(state, project)) later(query);
    if (this.isSettled && (this.leaveOutAbsent() || this.leaveOutGone())) return;
    if (this.isSettled && this.waiting) {
      this.act(this.waiting, true);
      return;
    }
    clearTimeout(this.resting);
    const askAll = () => {
      if (answers.findInPage(further)) this.show();
      else answers.ask([...asked, ...further], this.arrived, this.away);
    };
    if (!this.isSettled) answers.ask(asked, this.arrived, this.away);
    // What a list or a proof says of one step would only keep the next step waiting.
    else if (this.isTurning) this.resting = setTimeout(askAll, REST);
    else askAll();
    if (this.isSettled) {
      this.tellChanges();
      onSettled?.(state);
    }
  };

  /** Says what the last act changed: two or three numbers with those before. What is being turned is told once. */
  private tellChanges(): void {
    if (this.toldFrom === null || this.isTurning) return;
    this.said.textContent = changesSaid(this.toldFrom, this.headlines);
    this.toldFrom = null;
  }

  /**
   * Leaves values out of filters that an address asked for and no row has, and says so, once; says whether
   * there were any.
   */
  private leaveOutAbsent(): boolean {
    if (this.isLookedThrough) return false;
    this.isLookedThrough = true;
    const { project } = this.presented;
    const absent = this.controls?.absent(this.state, project, this.options.answers) ?? [];
    if (absent.length === 0) return false;
    this.absent = absent.map(({ label, names }) => `${names.join(", ")} of ${label}, which no row has`);
    for (const { control, setting } of absent)
      this.state = boardReducer(this.state, { type: "set filter", control, setting });
    this.writeNote();
    this.options.onState?.(this.state, { type: "become", state: this.state }, false);
    this.show();
    return true;
  }

  /** Leaves categories out of picks that an address asked for and that went since, and says so. */
  private leaveOutGone(): boolean {
    const found = this.addressed.withoutGone(this.state, this.presented.project, this.options.answers);
    if (!found) return false;
    this.state = found.state;
    this.absent.push(`${found.words}, which no row has`);
    this.writeNote();
    this.options.onState?.(this.state, { type: "become", state: this.state }, false);
    this.show();
    return true;
  }

  private readonly arrived = (): void => {
    this.isAway = false;
    this.answeredAt = this.tellTime();
    this.show();
  };

  /** Where answers cannot be had, what waits for them keeps its last picture and says from when it is. */
  private readonly away = (): void => {
    if (this.isAway) return;
    this.isAway = true;
    const since = this.answeredAt ? `${this.answeredAt}: the` : "The";
    this.asOf.textContent = `${since} server does not answer`;
    this.show();
  };

  /** Says of when the answers are, which a board that is presented gets anew whenever its data change. */
  private tellTime(): string {
    const now = new Date();
    const [hours, minutes] = [now.getHours(), now.getMinutes()].map((n) => String(n).padStart(2, "0"));
    const time = `as of ${hours}:${minutes}`;
    this.asOf.textContent = this.options.onClose ? time : "";
    return time;
  }

  private showTile(
    { tile, view, visual }: { tile: VisualOnTile; view: VisualTile; visual: Visual },
    ground: TileGround,
    later: (query: QueryInput) => ReturnType<Answers["of"]>,
  ): void {
    const { board, project, design, theme, inputs } = ground;
    const { seen, path, data, part, keepsOnly, pending, filters } = this.tiles.of(tile, visual, ground);
    this.headlines.set(tile.id, headlineOf(data));
    const lit = this.state.picks.findLast((p) => p.visual === visual.id) ?? null;
    const on: OnTile = { visual, seen, path, data };
    const { onRows } = this.options;
    view.show({
      visual: seen,
      data,
      design,
      theme,
      pending,
      part,
      lit,
      onPick: pickOn(on, this.act),
      onHover: (met) => this.options.onHover?.(on, met),
      onEnter: ({ key, side }) => {
        if (side === "split" && canStepDown(spoken(visual), path, key))
          this.act({ type: "step down", visual: visual.id, key });
      },
      menu: (category) => [
        ...menuOf(on, category, this.state, this.act),
        ...(onRows
          ? rowsItems(on, category, project, { filters, inputs }, (asked) => {
              onRows(asked, project).catch(() => this.tell("The rows cannot be had: the server is away."));
            })
          : []),
      ],
      notes: [
        ...wholeFor(board, this.state, tile, project).map((label) => `whole for ${label}`),
        ...(keepsOnly ? ["keeps only what is picked"] : []),
        ...(this.isAway && pending && this.answeredAt ? [this.answeredAt] : []),
      ],
      failing: failingProofs(visual, project, later),
      trail: trailOf(visual, path, project),
      onUp: (to) => this.act({ type: "step up", visual: visual.id, to }),
    });
  }
}

function closeButton(onclick: () => void, label: string, title: string, className: string, size = 16) {
  return element(
    "button",
    { type: "button", class: `icon-button ${className}`, "aria-label": label, title, onclick },
    sign("close", size),
  );
}
