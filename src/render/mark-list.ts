import { datumText, type PlacedDatum } from "@/core/scene/datums";
import { focusedBeside } from "./roots";

/** So many marks are objects; more of them are found in the numbers as a table. */
const MOST = 300;
/** A picture that stands still for so many milliseconds has its marks as objects; one that is met, at once. */
const STILL_FOR = 250;

let lists = 0;

/** What a list of marks asks of the picture that it lies over. */
export interface OfPicture {
  datums: () => readonly PlacedDatum[];
  /** Whether a mark is picked; null where it can't be. */
  isPicked: (mark: PlacedDatum) => boolean | null;
  /** Told where a mark is chosen as an object, not by the keys that walk. */
  onChoose: (at: number) => void;
}

/**
 * The marks of a picture as objects for assistive technology: each with its name and its place in the set,
 * where it is seen. The list has the keyboard's focus, and tells which mark the arrow keys have come to.
 * Nothing of it is seen or met by the pointer.
 */
export class MarkList {
  readonly root: HTMLElement;
  private readonly id = `marks-${++lists}`;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private at = -1;

  constructor(
    private readonly of: OfPicture,
    description: string,
  ) {
    this.root = document.createElement("div");
    this.root.className = "picture-marks";
    this.root.tabIndex = 0;
    this.root.setAttribute("role", "listbox");
    this.root.setAttribute("aria-description", description);
    this.root.addEventListener("focus", () => this.fill());
    this.root.addEventListener("click", ({ target }) => {
      const at = [...this.root.children].indexOf(target as Element);
      if (at >= 0) this.of.onChoose(at);
    });
  }

  /** Calls the list by what it belongs to, and follows the picture as it is now. */
  follow(name: string): void {
    this.root.setAttribute("aria-label", name);
    clearTimeout(this.timer);
    if (focusedBeside(this.root) === this.root) this.fill();
    else this.timer = setTimeout(() => this.fill(), STILL_FOR);
  }

  /** Says which mark the arrow keys have come to; -1 is none. */
  point(at: number): void {
    this.at = at;
    const mark = this.root.children[at];
    if (mark) this.root.setAttribute("aria-activedescendant", mark.id);
    else this.root.removeAttribute("aria-activedescendant");
  }

  dispose(): void {
    clearTimeout(this.timer);
  }

  private fill(): void {
    clearTimeout(this.timer);
    const marks = this.of.datums();
    const picked = marks.slice(0, MOST).map((mark) => this.of.isPicked(mark));
    const isMany = picked.some((p) => p !== null);
    if (isMany) this.root.setAttribute("aria-multiselectable", "true");
    else this.root.removeAttribute("aria-multiselectable");
    // Elements are kept, so that who has come to one is not thrown out of it.
    while (this.root.children.length > picked.length) this.root.lastElementChild?.remove();
    for (const [i, isPicked] of picked.entries()) this.write(i, marks[i], marks.length, isPicked);
    this.point(this.at);
  }

  private write(at: number, { datum, x, y }: PlacedDatum, count: number, isPicked: boolean | null): void {
    const known = this.root.children[at] as HTMLElement | undefined;
    const option = known ?? document.createElement("div");
    if (!known) {
      option.id = `${this.id}-${at}`;
      option.setAttribute("role", "option");
      option.setAttribute("aria-posinset", String(at + 1));
      this.root.append(option);
    }
    const text = datumText(datum);
    if (option.textContent !== text) option.textContent = text;
    option.setAttribute("aria-setsize", String(count));
    if (isPicked === null) option.removeAttribute("aria-selected");
    else option.setAttribute("aria-selected", String(isPicked));
    option.style.left = `${Math.round(x)}px`;
    option.style.top = `${Math.round(y)}px`;
  }
}
