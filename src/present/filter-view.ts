import { steppedBy } from "@/core/base/stepped-by";
import type { Value } from "@/core/base/value";
import { chosenAlone, type FilterOfBoard, toggled } from "@/core/view/board-state";
import { type Choice, inLine } from "@/core/view/column-choices";
import { element, popoverButton } from "./elements";

/**
 * A filter as a row of buttons: all, or any of the values. Several values are chosen with Ctrl, or in the
 * list of the rest.
 */
export class FilterView {
  readonly root: HTMLElement;
  private readonly row: HTMLElement;
  private buttons: { button: HTMLButtonElement; isOn: (chosen: Value[]) => boolean }[] = [];
  private more: { button: HTMLButtonElement; rest: Choice[] } | null = null;
  private choices: Choice[] | null = null;
  private chosen: Value[] = [];

  constructor(
    { label }: FilterOfBoard,
    private readonly onChoose: (values: Value[]) => void,
  ) {
    this.row = element("div", {
      class: "board-filter",
      onkeydown: (event: KeyboardEvent) => this.walk(event),
      onfocusin: (event: FocusEvent) => this.stopAt(event.target as Element),
    });
    this.root = element("fieldset", { class: "board-control" }, element("legend", {}, label), this.row);
    this.label = label;
  }
  private readonly label: string;

  /** Shows what can be chosen and what is. */
  show(choices: Choice[], chosen: Value[]): void {
    this.chosen = chosen;
    if (JSON.stringify(this.choices) !== JSON.stringify(choices)) {
      this.choices = choices;
      this.write(choices);
    }
    for (const { button, isOn } of this.buttons) button.setAttribute("aria-pressed", String(isOn(chosen)));
    if (!this.more) return;
    const { button, rest } = this.more;
    const among = rest.filter((c) => chosen.includes(c.value));
    const many = among.length > 0 ? `${among.length} more chosen` : `${rest.length} more`;
    button.textContent = among.length === 1 ? among[0].label : many;
  }

  private write(choices: Choice[]): void {
    const { shown, rest } = inLine(choices);
    const made = (text: string, isOn: (chosen: Value[]) => boolean, press: (event: MouseEvent) => void) => ({
      isOn,
      button: element("button", { type: "button", tabindex: -1, onclick: press }, text),
    });
    this.buttons = [
      made(
        "All",
        (chosen) => chosen.length === 0,
        () => this.onChoose([]),
      ),
      ...shown.map(({ value, label }) =>
        made(
          label,
          (chosen) => chosen.includes(value),
          ({ ctrlKey, metaKey, shiftKey }) =>
            this.onChoose(
              ctrlKey || metaKey || shiftKey ? toggled(this.chosen, value) : chosenAlone(this.chosen, value),
            ),
        ),
      ),
    ];
    this.more = null;
    const parts: Node[] = this.buttons.map((b) => b.button);
    if (rest.length > 0) {
      const { button, list } = popoverButton(`Values of ${this.label}`, { tabindex: -1 }, () =>
        choices.map((choice) => this.tick(choice)),
      );
      const isOn = (chosen: Value[]) => rest.some((c) => chosen.includes(c.value));
      this.buttons.push({ button, isOn });
      this.more = { button, rest };
      parts.push(button, list);
    }
    this.row.replaceChildren(...parts);
    this.buttons[0].button.tabIndex = 0;
  }

  private tick({ value, label }: Choice): HTMLElement {
    const box = element("input", {
      type: "checkbox",
      onchange: () => this.onChoose(toggled(this.chosen, value)),
    });
    box.checked = this.chosen.includes(value);
    return element("label", {}, box, element("span", {}, label));
  }

  /** One stop of the Tab key, and arrows between the buttons. */
  private walk(event: KeyboardEvent): void {
    const all = this.buttons.map((b) => b.button);
    const next = steppedBy(event.key, all.indexOf(event.target as HTMLButtonElement), all.length);
    if (next === null || !all.includes(event.target as HTMLButtonElement)) return;
    event.preventDefault();
    all[next].focus();
  }

  private stopAt(target: Element): void {
    if (!this.buttons.some((b) => b.button === target)) return;
    for (const { button } of this.buttons) button.tabIndex = button === target ? 0 : -1;
  }
}
