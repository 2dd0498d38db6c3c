import { formatNumber, PERCENT_FORMAT } from "@/core/base/number-format";
import { steppedBy } from "@/core/base/stepped-by";
import type { Lit } from "@/core/kinds/anatomy/kind";
import type { Visual } from "@/core/project/schema";
import type { VisualData } from "@/core/rows/visual-data";
import { datumsOf, type PlacedDatum, tableOf } from "@/core/scene/datums";
import { type CategoryOf, categoryOf, type Datum, type Focus, focusOf, type Scene } from "@/core/scene/marks";
import { type ShareOf, withParts } from "@/core/scene/part-of";
import { isPickable } from "@/core/view/picks";
import { type Design, sceneOf } from "@/core/view/picture";
import { MarkList } from "@/render/mark-list";
import { type LivePicture, type StartPicture, wantsMore } from "@/render/painter/live";
import { focusedBeside } from "@/render/roots";
import { element, popoverButton, sign } from "./elements";
import { type MenuItem, openMenu } from "./menu";

/** A tile is never drawn smaller than this. */
const LEAST = { width: 96, height: 72 };
/** Nothing is said of an answer that comes within this time, in milliseconds. */
const QUIET = 300;

/** What a tile shows, and what is done with what is picked there. */
export interface Shown {
  visual: Visual;
  data: VisualData;
  design: Design;
  theme: "light" | "night";
  /** Whether its answer is under way. */
  pending: boolean;
  /** What share of it is picked elsewhere, to be lit up; null where nothing is. */
  part: ShareOf | null;
  /** What is picked here. */
  lit: Lit | null;
  /** `more`: it joins what is picked here already. */
  onPick: ((picked: CategoryOf, more: boolean) => void) | null;
  onEnter: (picked: CategoryOf) => void;
  /** Told what is under the pointer, or was reached by keys; null where nothing is. */
  onHover?: (met: CategoryOf | null) => void;
  /** What can be done with a category that is called so, or with the visual as a whole. */
  menu: (category: (CategoryOf & { label: string }) | null) => MenuItem[];
  /** What is to be known of it: the controls that leave it whole, and what it cannot light up. */
  notes: string[];
  /** The proofs of it that fail. */
  failing: string[];
  /** The categories that were stepped down from, and back up to so many of them. */
  trail: string[];
  onUp: (to: number) => void;
}

const PERCENT = { ...PERCENT_FORMAT, decimals: 1 };

/** A scene with the part in front that is picked elsewhere. */
const litUp = (scene: Scene, part: ShareOf | null, { words }: VisualData): Scene =>
  (part &&
    withParts(scene, part, (datum, share) => ({
      ...datum,
      lines: [...datum.lines, { label: words.picked, value: formatNumber(share, PERCENT) }],
    }))) ||
  scene;

/** Whether a visual can light up a part of what it draws. */
export const canLightUp = (visual: Visual, data: VisualData, design: Design, part: ShareOf): boolean =>
  withParts(sceneOf(visual, data, design), part, (datum) => datum) !== null;

/** A visual that fills its tile: painted, walked through by keyboard, with its numbers as a table. */
export class VisualTile {
  /** The picture, its numbers, what is said of it. */
  readonly root: HTMLElement;
  private readonly picture: HTMLElement;
  private readonly trail = element("nav", { class: "board-trail", "aria-label": "Stepped down from" });
  private readonly stage: HTMLElement;
  private readonly host = element("div", { "aria-hidden": "true", class: "board-host" });
  /** What the picture is for who cannot see it, as a whole. */
  private readonly described = element("div", { role: "img" }, this.host);
  private readonly marks = new MarkList(
    {
      datums: () => this.datums,
      isPicked: ({ datum }) => this.isPicked(datum),
      onChoose: (at) => this.choose(at, false),
    },
    "Arrow keys go from mark to mark, Enter picks one, and the menu key opens what can be done with it.",
  );
  private readonly busy = element(
    "span",
    { role: "status", class: "board-busy" },
    element("span", { class: "busy-mark", "aria-hidden": "true" }),
    " computing",
  );
  private readonly numbers: HTMLElement;
  private readonly notes = element("p", { class: "board-notes" });
  private readonly more: HTMLElement;
  private readonly observer: ResizeObserver;
  private live: LivePicture | null = null;
  private shown: Shown | null = null;
  /** The room that there is for the picture, in pixels. */
  private room = { width: 0, height: 0 };
  /** The size, ground and border that the picture has. */
  private dressed = "";
  /** What it says mark by mark: found once it is asked for, and not while a board is being filtered. */
  private found: PlacedDatum[] | null = null;
  private scene: Scene | null = null;
  private at = -1;
  /** Whether the menu of the mark is open that the arrow keys have come to: it stays that mark's. */
  private isMenuOpen = false;
  /** The row under the pointer, or that the arrow keys have come to. */
  private under: Focus | null = null;
  private late: ReturnType<typeof setTimeout> | undefined;

  /** The numbers as a table, where they stand in the place of the picture. */
  private readonly plain = element("div", { class: "board-table", role: "region", tabindex: 0 });
  private written = "";

  constructor(
    private readonly start: StartPicture,
    private readonly wantsMotion: () => boolean,
    private readonly as: "drawing" | "table" = "drawing",
  ) {
    this.picture = element(
      "div",
      { class: "picture board-picture", part: "picture" },
      this.described,
      this.marks.root,
    );
    this.marks.root.addEventListener("keydown", (event) => this.key(event));
    this.marks.root.addEventListener("blur", () => this.at >= 0 && !this.isMenuOpen && this.go(-1));
    const numbers = popoverButton("Numbers", { class: "board-numbers" }, () => this.table());
    numbers.button.textContent = "Numbers as a table";
    this.numbers = numbers.list;
    const more = element(
      "button",
      {
        type: "button",
        class: "icon-button board-more",
        "aria-haspopup": "menu",
        "aria-label": "More",
        title: "More",
        onclick: () => this.open(more.getBoundingClientRect(), null, () => more.focus()),
      },
      sign("more", 16),
    );
    this.more = more;
    this.stage = element(
      "div",
      {
        class: "board-stage",
        oncontextmenu: (event: MouseEvent) => this.menuAt(event),
      },
      as === "table" ? this.plain : this.picture,
      ...(as === "table" ? [] : [numbers.button]),
      numbers.list,
      more,
    );
    this.trail.hidden = true;
    this.root = element("div", { class: "board-visual" }, this.trail, this.stage, this.notes);
    // Asked for at every drawing, the page would be laid out anew for each tile.
    this.observer = new ResizeObserver(([entry]) => {
      const { width, height } = entry.contentRect;
      this.room = { width, height };
      this.draw();
    });
    this.observer.observe(this.stage);
  }

  /** Shows the next state. */
  show(shown: Shown): void {
    const before = this.shown;
    this.shown = shown;
    if (before?.visual.name !== shown.visual.name)
      this.more.setAttribute("aria-label", `More of ${shown.visual.name}`);
    if (JSON.stringify(before?.trail ?? []) !== JSON.stringify(shown.trail)) this.writeTrail(shown);
    const notes = [...shown.failing, ...shown.notes].join(" · ");
    if (this.notes.textContent !== notes) this.notes.textContent = this.notes.title = notes;
    this.notes.toggleAttribute("data-fails", shown.failing.length > 0);
    if (before?.pending !== shown.pending) this.tellPending(shown.pending);
    const isSame = (["visual", "data", "design", "theme", "lit", "part"] as const).every(
      (k) => before?.[k] === shown[k],
    );
    if (!isSame) this.draw();
  }

  private get datums(): PlacedDatum[] {
    this.found ??= this.scene ? datumsOf(this.scene) : [];
    return this.found;
  }

  /** Puts the keyboard's focus on the picture, or on the table in its place. */
  focus(): void {
    (this.as === "table" ? this.plain : this.marks.root).focus();
  }

  /** The way back up: the visual as it is, then each category that was stepped down from. */
  private writeTrail({ visual, trail, onUp }: Shown): void {
    const hadFocus = this.trail.contains(focusedBeside(this.trail));
    const names = [visual.name, ...trail];
    const parts = names.map((name, at) =>
      at === trail.length
        ? element("span", { "aria-current": "true", title: name }, name)
        : element("button", { type: "button", title: name, onclick: () => onUp(at) }, name),
    );
    this.trail.hidden = trail.length === 0;
    this.trail.replaceChildren(...(trail.length === 0 ? [] : parts));
    if (hadFocus) this.focus();
    this.go(-1);
  }

  /** The menu of what is under the pointer, or of the mark that the arrow keys have come to. */
  private menuAt(event: MouseEvent): void {
    if (event.defaultPrevented || (event.target as Element).closest(".board-list")) return;
    const here = event.target === this.marks.root ? this.datums[this.at] : undefined;
    const category = here ? categoryOf(here) : (this.live?.categoryAt?.(event.target) ?? null);
    const { left, top, width } = this.picture.getBoundingClientRect();
    const scale = width / this.picture.offsetWidth;
    const at = here
      ? { x: left + here.x * scale, y: top + here.y * scale }
      : { x: event.clientX, y: event.clientY };
    const back = () => {
      this.isMenuOpen = false;
      this.focus();
    };
    this.isMenuOpen = here !== undefined;
    if (this.open(at, category, back)) event.preventDefault();
  }

  private open(at: { x: number; y: number }, category: CategoryOf | null, back: () => void): boolean {
    if (!this.shown) return false;
    const { visual, menu, data } = this.shown;
    const entries = category?.side === "series" ? data.series : data.rows;
    const label = entries.find((e) => e.key === category?.key)?.label;
    const of = category && label !== undefined ? { ...category, label } : null;
    const numbers: MenuItem = { text: "Numbers as a table", run: () => this.numbers.showPopover() };
    openMenu(of?.label ?? visual.name, [...menu(of), numbers], at, this.root, back);
    return true;
  }

  dispose(): void {
    clearTimeout(this.late);
    this.observer.disconnect();
    this.marks.dispose();
    this.live?.dispose();
  }

  /** What stands here is dimmed after a moment while its next answer is under way. */
  private tellPending(pending: boolean): void {
    clearTimeout(this.late);
    const tell = (late: boolean) => {
      this.root.toggleAttribute("data-late", late);
      this.root.setAttribute("aria-busy", String(late));
      if (late) this.root.append(this.busy);
      else this.busy.remove();
    };
    if (pending) this.late = setTimeout(() => tell(true), QUIET);
    else tell(false);
  }

  private draw(): void {
    if (this.as === "table") this.drawTable();
    else this.drawPicture();
  }

  private drawPicture(): void {
    const { shown } = this;
    const { width: clientWidth, height: clientHeight } = this.room;
    if (!shown || clientWidth === 0 || clientHeight === 0) return;
    // Never more than there is room for: a border would be cut.
    const width = Math.max(LEAST.width, Math.floor(clientWidth));
    const height = Math.max(LEAST.height, Math.floor(clientHeight));
    const { visual, data, design, theme, lit, part } = shown;
    const size = { width, height };
    const scene = litUp(sceneOf(visual, data, design, { size, theme, focus: this.under, lit }), part, data);
    this.scene = scene;
    this.found = null;
    const { host } = this;
    this.dress(scene, width, height);
    this.live ??= this.start(
      host,
      { width, height },
      {
        onFocus: (focus) => this.light(focus),
        onPick: (picked, more) => this.shown?.onPick?.(picked, more),
        onEnter: (picked) => this.shown?.onEnter(picked),
      },
    );
    this.live.draw(scene, !this.wantsMotion());
    this.marks.follow(`Marks of ${visual.name}`);
  }

  /** Gives the picture its size, its ground and border, and its words, where these have changed. */
  private dress({ border, background, description }: Scene, width: number, height: number): void {
    const { picture, described } = this;
    const words = description + this.pickedWords();
    if (described.getAttribute("aria-label") !== words) described.setAttribute("aria-label", words);
    const line = border && border.color !== "none" ? border.color : "transparent";
    const dress = JSON.stringify([width, height, background, border?.radius, line]);
    if (dress === this.dressed) return;
    this.dressed = dress;
    picture.style.setProperty("--width", `${width}px`);
    picture.style.setProperty("--height", `${height}px`);
    picture.style.setProperty("--line", line);
    Object.assign(picture.style, {
      background: background ?? "",
      // A page that shows an element may round its frame otherwise.
      borderRadius: border ? `var(--cavlo-radius, ${border.radius}px)` : "",
    });
  }

  /** What is picked here, for the words of the picture; empty where nothing is. */
  private pickedWords(): string {
    const { lit, data } = this.shown ?? {};
    if (!lit || !data) return "";
    const entries = lit.side === "series" ? data.series : data.rows;
    const names = entries.filter(({ key }) => lit.keys.includes(key)).map(({ label }) => label);
    return names.length > 0 ? ` Picked: ${names.join(", ")}.` : "";
  }

  /** Writes the table that stands in the place of the picture: what the picture would say at its own size. */
  private drawTable(): void {
    if (!this.shown) return;
    const { visual, data, design, theme } = this.shown;
    const scene = sceneOf(visual, data, design, { theme });
    this.scene = scene;
    this.found = null;
    const name = data.title || visual.name;
    this.plain.setAttribute("aria-label", `Numbers: ${visual.name}`);
    const said = JSON.stringify([name, data.problem, this.datums.map((d) => d.datum)]);
    if (said === this.written) return;
    this.written = said;
    this.plain.replaceChildren(
      ...(data.problem === null ? [this.tableNamed(name)] : [element("p", {}, data.problem)]),
    );
  }

  private light(focus: Focus | null): void {
    const before = this.under;
    if (focus?.row === before?.row && focus?.series === before?.series) return;
    this.under = focus;
    if (focus?.row !== before?.row) this.shown?.onHover?.(focus && { key: focus.row, side: "split" });
    this.draw();
  }

  private go(place: number): void {
    this.at = place;
    const here = this.datums[place];
    this.live?.tell(here?.datum ?? null, here?.x ?? 0, here?.y ?? 0);
    this.marks.point(here ? place : -1);
    this.light(here ? focusOf(here) : null);
  }

  /** Whether a mark is picked; null where it can't be. */
  private isPicked({ key, side }: Datum): boolean | null {
    const { lit, onPick } = this.shown ?? {};
    if (!onPick || !isPickable(key)) return null;
    return lit?.side === (side ?? "split") && lit.keys.includes(key);
  }

  /** Picks a mark, or goes there where it can't be picked. */
  private choose(at: number, more: boolean): void {
    const here = this.datums[at];
    const category = here && isPickable(here.datum.key) ? categoryOf(here) : null;
    if (category && this.shown?.onPick) this.shown.onPick(category, more);
    else if (here) this.go(at);
  }

  private key(event: KeyboardEvent): void {
    if (event.target !== this.marks.root || event.altKey) return;
    const here = this.datums[this.at];
    const isPick = event.key === "Enter" || event.key === " ";
    const next = wantsMore(event) ? null : steppedBy(event.key, this.at, this.datums.length);
    if (next !== null) this.go(next);
    else if (here && isPick && isPickable(here.datum.key)) this.choose(this.at, wantsMore(event));
    else if (here && event.key === "Escape") this.go(-1);
    else return;
    event.preventDefault();
  }

  private table(): Node[] {
    const name = this.shown?.visual.name ?? "";
    return [
      element(
        "div",
        { role: "region", "aria-label": `Numbers: ${name}`, tabindex: 0 },
        this.tableNamed(name),
      ),
    ];
  }

  /** What a row is called, as a button that opens the menu of its category where it has one. */
  private rowName(title: string, datum: Datum): Node | string {
    const category = isPickable(datum.key) ? categoryOf({ datum }) : null;
    if (!category || title === "") return title;
    const button = element(
      "button",
      {
        type: "button",
        class: "board-row",
        "aria-haspopup": "menu",
        onclick: () => {
          const { left, bottom } = button.getBoundingClientRect();
          this.open({ x: left, y: bottom }, category, () => button.focus());
        },
      },
      title,
    );
    return button;
  }

  private tableNamed(name: string): HTMLElement {
    const { columns, rows } = tableOf(this.datums);
    const head = columns.map((column) => element("th", { scope: "col" }, column));
    const body = rows.map(({ title, cells, datum }) =>
      element(
        "tr",
        {},
        element("th", { scope: "row" }, this.rowName(title, datum)),
        ...cells.map((cell) => element("td", {}, cell)),
      ),
    );
    return element(
      "table",
      {},
      element("caption", {}, name),
      element("thead", {}, element("tr", {}, element("td"), ...head)),
      element("tbody", {}, ...body),
    );
  }
}
