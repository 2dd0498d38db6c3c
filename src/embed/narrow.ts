/** A board in less room than this stands in one column, in pixels. */
const NARROW = 760;

/** Whether an element is so narrow that a board in it stands in one column; it tells when that changes. */
export class Narrow extends EventTarget {
  matches = false;
  private readonly observer = new ResizeObserver(([entry]) => this.look(entry.contentRect.width));

  constructor(private readonly room: HTMLElement) {
    super();
  }

  watch(): void {
    this.look(this.room.clientWidth);
    this.observer.observe(this.room);
  }
  stop(): void {
    this.observer.disconnect();
  }
  private look(width: number): void {
    const matches = width <= NARROW;
    if (matches === this.matches) return;
    this.matches = matches;
    this.dispatchEvent(new Event("change"));
  }
}
