import { steppedBy } from "@/core/base/stepped-by";
import type { Value } from "@/core/base/value";
import type { Setting } from "@/core/project/schema";
import { chosenAlone, toggled } from "@/core/view/board-state";
import {
  type Choice,
  choicesIn,
  choicesQuery,
  countsIn,
  inLine,
  MOST_LISTED,
} from "@/core/view/column-choices";
import { valuesIn } from "@/core/view/settings";
import { element, popoverButton } from "./elements";
import type { FilterGround, FilterView, FilterWishes } from "./filter-view";
import { numberText } from "./number-text";
import { ValueList } from "./value-list";

/** How many rows have each value under the other filters; null where that is not known, or there are none. */
function countsOf({ control }: FilterWishes, { others, later, project }: FilterGround, most?: number) {
  const { table, column, by } = control;
  const answer = later({ ...choicesQuery(table, column, by, most), filters: others });
  return answer && countsIn(answer, by, project);
}

/** The values of a list, with their counts: those that no row has any more go, but where they are chosen. */
function listed(choices: Choice[], counts: Map<Value, number> | null, chosen: Value[]) {
  const isThere = ({ value }: Choice) => !counts || counts.has(value) || chosen.includes(value);
  return choices.filter(isThere).map(({ value, label }) => ({
    value,
    label,
    count: counts ? numberText(counts.get(value) ?? 0) : "",
  }));
}

/** The choice of a value more or less, or of it alone where one is the most. */
const after = ({ control }: FilterWishes, chosen: Value[], value: Value): Setting => ({
  in: control.many ? toggled(chosen, value) : chosenAlone(chosen, value),
});

/** A filter as a row of buttons: all, or some of the values; a list behind it has the rest. */
export function buttonsView(wishes: FilterWishes): FilterView {
  const { control, set } = wishes;
  let chosen: Value[] = [];
  let choices: Choice[] = [];
  let written = "";
  let buttons: { button: HTMLButtonElement; value?: Value }[] = [];
  let more: { button: HTMLButtonElement; rest: Choice[]; list: ValueList } | null = null;
  const row = element("div", {
    class: control.many ? "board-filter board-many" : "board-filter",
    onkeydown: (event: KeyboardEvent) => {
      const all = buttons.map((b) => b.button);
      const at = all.indexOf(event.target as HTMLButtonElement);
      const next = at < 0 ? null : steppedBy(event.key, at, all.length);
      if (next === null) return;
      event.preventDefault();
      all[next].focus();
    },
    // One stop of the Tab key, and arrows between the buttons.
    onfocusin: (event: FocusEvent) => {
      if (!buttons.some((b) => b.button === event.target)) return;
      for (const { button } of buttons) button.tabIndex = button === event.target ? 0 : -1;
    },
  });
  const write = () => {
    const { shown, rest } = inLine(choices);
    const made = (text: string, onclick: () => void) =>
      element("button", { type: "button", tabindex: -1, onclick, title: text }, text);
    buttons = [
      { button: made("All", () => set({ in: [] })) },
      ...shown.map(({ value, label }) => ({
        value,
        button: made(label, () => set(after(wishes, chosen, value))),
      })),
    ];
    more = null;
    const parts: Node[] = buttons.map((b) => b.button);
    if (rest.length > 0) {
      const list = new ValueList(control.label, control.many, (value) => set(after(wishes, chosen, value)));
      const { button, list: popover } = popoverButton(`Values of ${control.label}`, { tabindex: -1 }, () => {
        queueMicrotask(wishes.refresh);
        return [list.root];
      });
      buttons.push({ button });
      more = { button, rest, list };
      parts.push(button, popover);
    }
    row.replaceChildren(...parts);
    buttons[0].button.tabIndex = 0;
  };
  return {
    root: row,
    show(setting, ground) {
      chosen = valuesIn(setting);
      const { table, column, by } = control;
      const answer = ground.answer(choicesQuery(table, column, by));
      // While it is asked anew, what is known stands.
      if (answer) choices = choicesIn(answer, by, ground.project);
      const text = JSON.stringify(choices);
      if (text !== written) write();
      written = text;
      const counts = countsOf(wishes, ground);
      for (const [i, { button, value }] of buttons.entries()) {
        if (more?.button === button) continue;
        const isOn = i === 0 ? chosen.length === 0 : chosen.includes(value as Value);
        button.setAttribute("aria-pressed", String(isOn));
        if (i === 0 || !counts) continue;
        const rows = counts.get(value as Value) ?? 0;
        button.toggleAttribute("data-none", rows === 0 && !isOn);
        button.title = `${choices[i - 1].label}: ${numberText(rows)} ${rows === 1 ? "row" : "rows"}`;
      }
      if (!more) return;
      const { button, rest, list } = more;
      const among = rest.filter((c) => chosen.includes(c.value));
      const many = among.length > 0 ? `${among.length} more chosen` : `${rest.length} more`;
      button.textContent = among.length === 1 ? among[0].label : many;
      button.setAttribute("aria-pressed", String(among.length > 0));
      list.show(listed(choices, counts, chosen), chosen);
    },
  };
}

/**
 * A filter as a list behind a button, searched by a part of a name: thousands of values too. As a menu it is
 * not searched, and closes with the choice of the one value that it takes.
 */
export function listView(wishes: FilterWishes, isSearched: boolean): FilterView {
  const { control, set } = wishes;
  let chosen: Value[] = [];
  let choices: Choice[] = [];
  let open = false;
  const list = new ValueList(
    control.label,
    control.many,
    (value) => {
      set(after(wishes, chosen, value));
      if (!isSearched && !control.many && byPointer) popover.hidePopover();
    },
    isSearched,
  );
  // Arrow keys choose what they come to, so that only a pointer is done with one choice.
  let byPointer = false;
  list.root.addEventListener("pointerdown", () => {
    byPointer = true;
  });
  list.root.addEventListener("keydown", () => {
    byPointer = false;
  });
  const all = element(
    "button",
    { type: "button", class: "board-button", onclick: () => set({ in: [] }) },
    "All of them",
  );
  const { button, list: popover } = popoverButton(
    `Values of ${control.label}`,
    { class: "board-opens", "aria-label": control.label },
    () => [list.root, all],
  );
  // Whether the list takes the focus as soon as it has something to find.
  let enters = false;
  popover.addEventListener("toggle", (event) => {
    open = enters = (event as ToggleEvent).newState === "open";
    if (open) wishes.refresh();
  });
  return {
    root: element("div", { class: "board-opener" }, button, popover),
    show(setting, ground) {
      chosen = valuesIn(setting);
      const { table, column, by } = control;
      // What is chosen has names by itself; all others are asked for when somebody looks.
      const query = choicesQuery(table, column, by, MOST_LISTED);
      const needed = open || chosen.length > 0;
      const answer = needed ? ground.answer(query) : null;
      if (answer) choices = choicesIn(answer, by, ground.project);
      const names = choices.filter((c) => chosen.includes(c.value)).map((c) => c.label);
      const text =
        chosen.length > 2 ? `${chosen.length} chosen` : names.join(", ") || `${chosen.length} chosen`;
      button.textContent = chosen.length === 0 ? "All" : text;
      button.setAttribute("aria-label", `${control.label}: ${button.textContent}`);
      all.disabled = chosen.length === 0;
      if (!open) return;
      list.show(listed(choices, countsOf(wishes, ground, MOST_LISTED), chosen), chosen);
      if (enters && choices.length > 0) {
        enters = false;
        list.focus();
      }
    },
  };
}
