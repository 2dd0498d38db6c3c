import type { Project } from "@/core/project/schema";
import { subjectOf } from "@/core/rows/row-key";
import { FAMILIES } from "@/core/scene/families";
import { pageInputs, pageSettings } from "@/core/snapshot/page-filters";
import {
  type BoardAction,
  type BoardState,
  filtersOfTile,
  inputsOf,
  seenVisual,
  settingIn,
  UNTOUCHED,
} from "@/core/view/board-state";
import { pickedNames } from "@/core/view/picks";
import { toQuery } from "@/core/view/query";
import { keepsAll } from "@/core/view/settings";
import type { Presented } from "@/present/board-controls";
import { PresentedBoard, type PresentOptions } from "@/present/present";
import { startPainter } from "@/render/painter/painter";
import styles from "./board.css";
import { boardSvg } from "./board-picture";
import { categoryTold } from "./category";
import { CavloElement, type Ground } from "./cavlo-element";
import { EmbedError } from "./embed-error";
import { Narrow } from "./narrow";
import { numbersIn } from "./numbers";
import { offerFontsOf } from "./page-fonts";
import { pngOfSvg } from "./png";
import type { CavloCategory, CavloChange, CavloFilter, CavloNumbers, CavloPick } from "./public";
import { sheetOf } from "./sheet";
import { wantedOf } from "./wanted";

const sheet = sheetOf(styles);

/** `<cavlo-board>`: a board with its controls, picks and steps. */
export class CavloBoard extends CavloElement {
  static override readonly observedAttributes = [...CavloElement.observedAttributes, "board"];

  private view: PresentedBoard | null = null;
  private shown: (Presented & { ground: Ground }) | null = null;
  private state: BoardState = UNTOUCHED;
  /** What the page has asked of filters and inputs, so that it is set once and a reader goes on from there. */
  private asked = "";
  private answered = "";
  private readonly narrow = new Narrow(this.stage);

  constructor() {
    super(sheet());
  }

  get board(): string {
    return this.getAttribute("board") ?? "";
  }
  set board(wanted: string) {
    this.setAttribute("board", wanted);
  }

  protected present(ground: Ground): void {
    const { project, answers, theme } = ground;
    const board = wantedOf(project.boards, this.board, "board");
    const wishes = {
      set: pageSettings(this.wished("filters"), board),
      inputs: pageInputs(this.wished("inputs"), project),
    };
    const asked = JSON.stringify([board.id, wishes]);
    if (asked !== this.asked) {
      this.asked = asked;
      this.state = { ...this.state, ...wishes };
      if (this.shown?.board.id !== board.id) this.state = { ...UNTOUCHED, ...wishes };
    }
    const options: PresentOptions = {
      answers,
      start: startPainter,
      theme,
      family: ground.family,
      narrow: this.narrow,
      wantsMotion: this.wantsMotion,
      state: this.state,
      onState: (state, action) => this.changed(state, action),
      onHover: ({ seen, data }, met) =>
        this.tell("hover", { category: met && categoryTold(met, seen, data) }),
      onSettled: () => this.settledOn(project),
    };
    const isNew = this.shown === null || this.shown.ground.answers !== answers;
    this.shown = { project, board, ground };
    if (isNew) {
      this.answered = "";
      offerFontsOf(project, [project.boards, project.visuals, ground.snapshot.answers]);
    }
    if (this.view) this.view.update({ project, board }, options);
    else {
      const host = document.createElement("div");
      host.className = "presented";
      this.stage.append(host);
      this.narrow.watch();
      this.view = new PresentedBoard(host, { project, board }, options);
    }
    this.fitHeight();
  }

  /** A board of a width of its own is scaled to the room, and takes no more height than it is then drawn in. */
  private fitHeight(): void {
    const host = this.stage.querySelector<HTMLElement>(".presented");
    const sheet = host?.querySelector<HTMLElement>(":scope > .board-sheet");
    if (!host || !sheet || sheet === this.fitted) return;
    this.fitted = sheet;
    this.sheetSize.disconnect();
    this.sheetSize.observe(sheet);
    this.sheetSize.observe(host);
  }

  private fitted: HTMLElement | null = null;
  private readonly sheetSize = new ResizeObserver(() => {
    const sheet = this.fitted;
    const host = sheet?.parentElement;
    if (!sheet || !host) return;
    const isScaled = sheet.classList.contains("board-scaled") && !this.narrow.matches;
    const scale = Number(sheet.style.getPropertyValue("--scale")) || 1;
    host.style.height = isScaled ? `${Math.ceil(sheet.offsetHeight * scale)}px` : "";
  });

  private settledOn(project: Project): void {
    // Told when answers are there, and not at every drawing.
    const now = JSON.stringify([this.state, this.shown?.ground.project === project && this.asked]);
    if (now === this.answered) return;
    this.answered = now;
    this.settled(this.shown?.board.name ?? "", () => this.told());
  }

  private changed(state: BoardState, action: BoardAction): void {
    this.state = state;
    if (action.type === "pick") this.tell("pick", this.pickTold(action));
  }

  /** All that is picked, visual by visual. */
  private picked(): CavloCategory[] {
    const { shown, state } = this;
    if (!shown) return [];
    return state.picks.flatMap((pick) => {
      const visual = shown.project.visuals.find((v) => v.id === pick.visual);
      if (!visual) return [];
      const seen = seenVisual(visual, state);
      return pick.keys.map((key): CavloCategory => {
        const subject = subjectOf(key);
        return {
          visual: visual.id,
          side: pick.side,
          category: pickedNames({ ...pick, keys: [key] }, seen, shown.project),
          value: subject.type === "category" ? subject.value : null,
        };
      });
    });
  }

  private pickTold({ visual, side, key }: Extract<BoardAction, { type: "pick" }>): CavloPick {
    const picked = this.picked();
    const subject = subjectOf(key);
    const value = subject.type === "category" ? subject.value : null;
    const { project } = this.shown as Presented;
    const of = project.visuals.find((v) => v.id === visual);
    const category = of
      ? pickedNames({ visual, side, keys: [key] }, seenVisual(of, this.state), project)
      : "";
    return { visual, side, category, value, picked };
  }

  /** What a reader has set, as the page itself could set it. */
  private told(): CavloChange {
    const { shown, state } = this;
    const filters: [string, CavloFilter][] = (shown?.board.controls ?? []).flatMap(
      (c): [string, CavloFilter][] => {
        if (c.type !== "filter") return [];
        const setting = settingIn(state, c);
        if (keepsAll(setting)) return [];
        if ("in" in setting) return [[c.label, setting.in]];
        if ("contains" in setting) return [[c.label, { contains: setting.contains }]];
        return "from" in setting ? [[c.label, { from: setting.from, to: setting.to }]] : [];
      },
    );
    return {
      filters: Object.fromEntries(filters),
      inputs: shown ? inputsOf(shown.project.inputs, state) : {},
    };
  }

  protected clear(): void {
    this.view?.dispose();
    this.view = null;
    this.narrow.stop();
    this.sheetSize.disconnect();
    this.fitted = null;
    this.stage.replaceChildren();
    this.shown = null;
    this.state = UNTOUCHED;
    this.asked = "";
    this.answered = "";
  }

  /** The visuals in their places as they stand now. */
  toSVG(): string {
    return new XMLSerializer().serializeToString(this.picture());
  }

  toPNG(scale = 2): Promise<Blob> {
    const svg = this.picture();
    const [width, height] = ["width", "height"].map((name) => Number(svg.getAttribute(name)));
    const dials = JSON.stringify(this.shown?.project.visuals.map((v) => v.dials) ?? []);
    const families = FAMILIES.map((f) => f.id).filter(
      (id, i) => i === 0 || dials.includes(JSON.stringify(id)),
    );
    return pngOfSvg(svg, { width, height }, families, scale);
  }

  private picture(): SVGElement {
    if (!this.shown) throw new EmbedError("not-there", "Nothing is shown yet. Wait for ready.");
    return boardSvg(this.stage, this.shown.board.name);
  }

  numbers(): CavloNumbers[] {
    const { shown, state } = this;
    if (!shown) return [];
    const { project, board, ground } = shown;
    return board.tiles.flatMap((tile) => {
      const visual = tile.type === "visual" && project.visuals.find((v) => v.id === tile.visual);
      if (!visual || tile.type !== "visual") return [];
      const seen = seenVisual(visual, state);
      const filters = filtersOfTile(board, state, tile, project);
      const query = toQuery(seen, project, filters, inputsOf(project.inputs, state));
      const answer = query && ground.answers.of(query);
      return answer && !("error" in answer) ? [numbersIn(seen, answer, project)] : [];
    });
  }
}
