import { phoneTiles, readingOrder } from "@/core/project/phone-layout";
import type { Board, Project, Tile } from "@/core/project/schema";
import type { StartPicture } from "@/render/painter/live";
import { element } from "./elements";
import { groundStyles, paintGround, tileGround } from "./ground-styles";
import { GONE, stillTile } from "./still-tiles";
import { TextTile } from "./text-tile";
import { PHONE, tilePlaces } from "./tile-place";
import { VisualTile } from "./visual-tile";

export type VisualOnTile = Extract<Tile, { type: "visual" }>;
type TextOnTile = Extract<Tile, { type: "text" }>;

/** Whether a board stands in one column, and whoever is told when that changes. */
export type Narrowness = Pick<MediaQueryList, "matches"> &
  Pick<EventTarget, "addEventListener" | "removeEventListener">;

/** The grid of a board that is looked at: its tiles in their places, in the order in which they are read. */
export class BoardGrid {
  readonly root: HTMLElement;
  readonly visuals = new Map<string, { tile: VisualOnTile; view: VisualTile }>();
  readonly texts = new Map<string, { tile: TextOnTile; view: TextTile }>();
  private readonly grid = element("div", { class: "board-grid" });
  private readonly cells = new Map<string, HTMLElement>();
  private readonly phone: Narrowness;

  constructor(
    private readonly board: Board,
    project: Pick<Project, "visuals" | "pictures">,
    picture: { start: StartPicture; wantsMotion: () => boolean; narrow?: Narrowness },
    whenEmpty: string,
  ) {
    this.phone = picture.narrow ?? matchMedia(PHONE);
    const places = tilePlaces(board);
    for (const tile of board.tiles) {
      const cell = element(
        "div",
        { class: "board-tile", part: "tile" },
        this.contentOf(tile, project, picture),
      );
      for (const [name, value] of Object.entries(places.get(tile.id) ?? {}))
        cell.style.setProperty(name, value);
      this.cells.set(tile.id, cell);
    }
    this.order();
    this.phone.addEventListener("change", this.order);
    this.root = element(
      "div",
      { class: "board-body", role: "region", "aria-label": "Board", tabindex: 0 },
      board.tiles.length > 0 ? this.grid : element("p", { class: "board-empty" }, whenEmpty),
    );
  }

  /** Paints what lies under the board and its tiles. */
  paint(theme: "light" | "night"): void {
    paintGround(this.root, groundStyles(this.board.look.ground, theme));
    for (const tile of this.board.tiles) {
      const cell = this.cells.get(tile.id);
      if (cell) paintGround(cell, tileGround(tile, this.board, theme));
    }
  }

  dispose(): void {
    this.phone.removeEventListener("change", this.order);
    for (const { view } of this.visuals.values()) view.dispose();
  }

  /** Who listens to a page, or goes through it by keyboard, meets the tiles as they are seen. */
  private readonly order = (): void => {
    const tiles = this.phone.matches ? phoneTiles(this.board) : readingOrder(this.board.tiles);
    this.grid.replaceChildren(...tiles.flatMap((t) => this.cells.get(t.id) ?? []));
  };

  private contentOf(
    tile: Tile,
    project: Pick<Project, "visuals" | "pictures">,
    { start, wantsMotion }: { start: StartPicture; wantsMotion: () => boolean },
  ): HTMLElement {
    if (tile.type === "text") {
      const view = new TextTile();
      this.texts.set(tile.id, { tile, view });
      return view.root;
    }
    if (tile.type !== "visual") return stillTile(tile, project);
    if (!project.visuals.some((v) => v.id === tile.visual))
      return element("div", { class: "board-text" }, GONE.visual);
    const view = new VisualTile(start, wantsMotion, tile.as);
    this.visuals.set(tile.id, { tile, view });
    return view.root;
  }
}
