import { formatNumber } from "@/core/base/number-format";
import type { Value } from "@/core/base/value";
import { meaningsOf } from "@/core/data/typed-number";
import type { Input } from "@/core/project/schema";
import { stepped } from "@/core/project/stepping";
import { element, sign } from "./elements";

/** An input of a board, which shows its value and what it can be chosen from (null: any value). */
export interface InputView {
  root: HTMLElement;
  show(value: Value, choices: Value[] | null): void;
}

const labelOf = (value: Value, { format }: Input) =>
  typeof value === "number" ? formatNumber(value, format) : String(value ?? "(none)");

/** An input by its type: a list where it has choices, else a stepper, a date or a text. */
export function inputView(input: Input, onChange: (value: Value) => void): InputView {
  const isChosen = input.choices.length > 0 || input.choicesFrom !== null;
  const view = isChosen
    ? choiceView(input, onChange)
    : input.type === "number"
      ? stepperView(input, onChange)
      : textView(input, onChange);
  return {
    root: element("fieldset", { class: "board-control" }, element("legend", {}, input.label), view.root),
    show: view.show,
  };
}

function choiceView(input: Input, onChange: (value: Value) => void): InputView {
  let all: Value[] = [];
  const root = element("select", {
    class: "field",
    "aria-label": input.label,
    onchange: () => onChange(all[root.selectedIndex]),
  });
  return {
    root,
    show(value, choices) {
      const next = choices?.includes(value) ? choices : [value, ...(choices ?? [])];
      if (JSON.stringify(next) !== JSON.stringify(all)) {
        all = next;
        root.replaceChildren(...all.map((v) => element("option", {}, labelOf(v, input))));
      }
      root.selectedIndex = all.indexOf(value);
    },
  };
}

/** A date or a text, taken when the person is done: on Enter or when leaving; Escape takes the old one back. */
function textView(input: Input, onChange: (value: Value) => void): InputView {
  let now = "";
  const commit = () => {
    if (root.value !== now && (input.type !== "date" || root.value !== "")) onChange(root.value);
    else root.value = now;
  };
  const root = element("input", {
    type: input.type === "date" ? "date" : "text",
    class: "field",
    "aria-label": input.label,
    onblur: commit,
    onkeydown: (event: KeyboardEvent) => {
      if (event.key === "Enter") commit();
      if (event.key !== "Escape" || root.value === now) return;
      event.preventDefault();
      root.value = now;
    },
  });
  return {
    root,
    show(value) {
      now = String(value ?? "");
      if (document.activeElement !== root) root.value = now;
    },
  };
}

/** A number as a stepper: two buttons, arrow keys, or a typed number within its limits. */
function stepperView(input: Input, onChange: (value: Value) => void): InputView {
  const least = input.minimum ?? Number.NEGATIVE_INFINITY;
  const most = input.maximum ?? Number.POSITIVE_INFINITY;
  const percent = input.format.style === "percent";
  let now = 0;
  let isTyped = false;
  const write = () => {
    isTyped = false;
    field.value = formatNumber(now, input.format);
  };
  const commit = () => {
    const means = isTyped ? meaningsOf(field.value, percent) : [];
    // Where a text can mean two numbers, the input's limits tell which, else the percents that stand here.
    const fitting = means.filter((n) => n >= least && n <= most);
    const standing = means.length > 1 ? meaningsOf(`${field.value}%`, percent)[0] : means[0];
    const read = fitting.length === 1 ? fitting[0] : standing;
    write();
    if (read !== undefined) onChange(Math.min(most, Math.max(least, read)));
  };
  const step = (direction: 1 | -1) => onChange(stepped(now, direction, input));
  const field = element("input", {
    role: "spinbutton",
    "aria-label": input.label,
    "aria-valuemin": input.minimum,
    "aria-valuemax": input.maximum,
    onfocus: () => field.select(),
    oninput: () => {
      isTyped = true;
    },
    onblur: commit,
    onkeydown: (event: KeyboardEvent) => {
      if (event.key === "Enter") commit();
      if (event.key === "Escape" && isTyped) {
        event.preventDefault();
        write();
      }
      if (event.key !== "ArrowUp" && event.key !== "ArrowDown") return;
      event.preventDefault();
      step(event.key === "ArrowUp" ? 1 : -1);
    },
  });
  const button = (direction: 1 | -1) =>
    element(
      "button",
      {
        type: "button",
        class: "icon-button",
        "aria-label": `${input.label} ${direction > 0 ? "up" : "down"}`,
        onclick: () => step(direction),
      },
      sign(direction > 0 ? "plus" : "minus", 13),
    );
  const [down, up] = [button(-1), button(1)];
  return {
    root: element("div", { class: "board-stepper" }, down, field, up),
    show(value) {
      now = typeof value === "number" ? value : 0;
      field.setAttribute("aria-valuenow", String(now));
      field.setAttribute("aria-valuetext", formatNumber(now, input.format));
      if (!isTyped) write();
      down.disabled = now <= least;
      up.disabled = now >= most;
    },
  };
}
