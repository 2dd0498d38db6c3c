import type { Board } from "@/core/project/schema";
import { element } from "./elements";

/**
 * What a board is laid out on: as wide as what it stands in, or, of a width of its own, scaled to that. On a
 * phone it is never scaled.
 */
export class BoardSheet {
  readonly root: HTMLElement;
  private readonly observer: ResizeObserver | null = null;

  constructor(host: HTMLElement, { width }: Pick<Board, "width">) {
    this.root = element("div", { class: "board-sheet" });
    if (width === "fluid") return;
    this.root.classList.add("board-scaled");
    this.root.style.setProperty("--width", String(width));
    const scaleTo = (room: number) => this.root.style.setProperty("--scale", String(room / width));
    scaleTo(host.clientWidth);
    this.observer = new ResizeObserver(([entry]) => scaleTo(entry.contentRect.width));
    this.observer.observe(host);
  }

  dispose(): void {
    this.observer?.disconnect();
  }
}
