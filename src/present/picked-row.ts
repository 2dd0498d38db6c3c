import type { BoardAction, BoardState } from "@/core/view/board-state";
import { answersText, CLEAR_ALL, type PickInWords, pickedInWords } from "@/core/view/picked-words";
import type { Presented } from "./board-controls";
import { element, sign } from "./elements";

interface Wishes {
  act: (action: BoardAction) => void;
  /** Copies a link to the state; none where there is no address to copy. */
  copy: (() => Promise<void>) | null;
  /** Puts the focus on the picture of a visual. */
  focusOn: (visual: string) => void;
}

/** What is picked on a board, each with a cross, and who answers. It stands only while something is. */
export class PickedRow {
  readonly root = element("div", { class: "board-picked", role: "group", "aria-label": "Picked" });
  /** Said as it changes; it stands always, so that it is heard. */
  readonly status = element("p", { class: "board-said", role: "status" });
  private shown: unknown[] = [];

  constructor(private readonly wishes: Wishes) {
    this.root.hidden = true;
  }

  show(state: BoardState, presented: Presented): void {
    const of = [state.picks, presented.board, presented.project];
    if (of.every((part, i) => part === this.shown[i])) return;
    const had = (this.shown[0] as BoardState["picks"] | undefined)?.length ?? 0;
    this.shown = of;
    const { picks } = state;
    const words = pickedInWords(state, presented.project);
    const chips = words.map((of, i) => this.chip(of, i));
    this.root.hidden = chips.length === 0;
    if (chips.length === 0) {
      this.root.replaceChildren();
      this.status.textContent = had > 0 ? "Nothing is picked." : "";
      return;
    }
    const answers = answersText(state, presented);
    const { act, copy } = this.wishes;
    const all = element(
      "button",
      {
        type: "button",
        class: "board-button",
        onclick: () => {
          act({ type: "let go" });
          this.wishes.focusOn(picks[0].visual);
        },
      },
      CLEAR_ALL,
    );
    this.root.replaceChildren(
      element("span", { class: "board-picked-name" }, "Picked"),
      ...chips,
      element("span", { class: "board-answers" }, answers),
      ...(copy ? [copyButton(copy, this.status)] : []),
      all,
    );
    this.status.textContent = `Picked ${words.map((w) => w.text).join("; ")}. ${answers}.`;
  }

  private chip({ picked: { visual, side, part }, text, from }: PickInWords, at: number): HTMLElement {
    const cross = element(
      "button",
      {
        type: "button",
        class: "icon-button",
        "aria-label": `Clear ${text}`,
        title: "Clear",
        onclick: () => {
          this.wishes.act({ type: "let go", visual, side });
          // The place of the cross is taken by the next one, or nothing is picked any more.
          const crosses = this.root.querySelectorAll<HTMLElement>(".board-chip .icon-button");
          const next = crosses[Math.min(at, crosses.length - 1)];
          if (next) next.focus();
          else this.wishes.focusOn(visual);
        },
      },
      sign("close", 12),
    );
    const way = element(
      "button",
      {
        type: "button",
        class: "board-way",
        "aria-pressed": String(part === true),
        "aria-label": `Highlight the part of ${text}`,
        title: "Highlight: the others keep their whole, and its part stands out. Filter: they keep only it",
        onclick: () => {
          this.wishes.act({ type: "light up", visual, side, part: part !== true });
          const ways = this.root.querySelectorAll<HTMLElement>(".board-way");
          ways[Math.min(at, ways.length - 1)]?.focus();
        },
      },
      part ? "highlight" : "filter",
    );
    return element(
      "span",
      { class: "board-chip" },
      element("b", { title: text }, text),
      element("span", { title: from }, `from ${from}`),
      way,
      cross,
    );
  }
}

/** How long a button says that it has copied, in milliseconds. */
const COPIED = 2500;

function copyButton(copy: () => Promise<void>, status: HTMLElement): HTMLElement {
  const text = "Copy the link to this state";
  const button = element("button", { type: "button", class: "board-button" }, text);
  button.addEventListener("click", () => {
    copy().then(
      () => {
        button.textContent = "Copied";
        status.textContent = "The link is copied.";
        setTimeout(() => (button.textContent = text), COPIED);
      },
      (error: Error) => {
        status.textContent = button.textContent = error.message;
        setTimeout(() => (button.textContent = text), 2 * COPIED);
      },
    );
  });
  return button;
}
