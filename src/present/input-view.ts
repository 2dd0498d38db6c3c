import { formatNumber } from "@/core/base/number-format";
import type { Value } from "@/core/base/value";
import { meaningsOf } from "@/core/data/typed-number";
import type { Control, Input } from "@/core/project/schema";
import { stepOf, stepped } from "@/core/project/stepping";
import { focusedBeside } from "@/render/roots";
import { element, sign } from "./elements";
import { heldThumb } from "./held-thumb";

/** An input of a board, which shows its value and what it can be chosen from (null: any value). */
export interface InputView {
  root: HTMLElement;
  show(value: Value, choices: Value[] | null): void;
}

const labelOf = (value: Value, { format }: Input) =>
  typeof value === "number" ? formatNumber(value, format) : String(value ?? "(none)");

/** Told of another value; `live` where it goes on being turned, and what comes between can be left out. */
type OnChange = (value: Value, live?: boolean) => void;

/** How an input of a board is shown. */
type Form = Extract<Control, { type: "input" }>["as"];

/** Whether an input can be shown in a form: a slider needs both ends, a switch two choices. */
export function canBe(input: Input, form: Form): boolean {
  const isChosen = input.choices.length > 0 || input.choicesFrom !== null;
  if (form === "slider") return input.type === "number" && input.minimum !== null && input.maximum !== null;
  if (form === "switch") return input.choices.length === 2 && !input.choicesFrom;
  return form === "automatic" || !isChosen;
}

function viewOf(input: Input, form: Form, onChange: OnChange): InputView {
  const isChosen = input.choices.length > 0 || input.choicesFrom !== null;
  const as = canBe(input, form) ? form : "automatic";
  if (as === "slider") return sliderView(input, onChange);
  if (as === "switch") return switchView(input, onChange);
  if (isChosen) return choiceView(input, onChange);
  if (input.type !== "number") return textView(input, onChange);
  return stepperView(input, as === "automatic", onChange);
}

/** An input in the form that is wanted, or by its type: a list where it has choices, a stepper, a date, a text. */
export function inputView(input: Input, form: Form, onChange: OnChange): InputView {
  const view = viewOf(input, form, onChange);
  return {
    root: element(
      "fieldset",
      { class: "board-control" },
      element("legend", { title: input.label }, input.label),
      view.root,
    ),
    show: view.show,
  };
}

/** A number between its ends as a slider, with the value beside it. */
function sliderView(input: Input, onChange: OnChange): InputView {
  const said = element("output", { class: "slider-said" });
  const step = stepOf(input);
  const turn = (live: boolean) => {
    write(Number(field.value));
    onChange(Number(field.value), live);
  };
  const field = element("input", {
    type: "range",
    "aria-label": input.label,
    min: input.minimum,
    max: input.maximum,
    step,
    oninput: () => turn(true),
    onchange: () => turn(false),
  });
  const isHeld = heldThumb(field);
  const write = (value: number) => {
    said.textContent = formatNumber(value, input.format);
    field.setAttribute("aria-valuetext", said.textContent);
  };
  return {
    root: element("div", { class: "board-slider" }, field, said),
    show(value) {
      const now = typeof value === "number" ? value : 0;
      if (isHeld()) return;
      field.value = String(now);
      write(now);
    },
  };
}

/** One of two choices as a switch. */
function switchView(input: Input, onChange: OnChange): InputView {
  const [off, on] = input.choices;
  const button = element("button", {
    type: "button",
    role: "switch",
    class: "board-switch",
    "aria-label": input.label,
    onclick: () => onChange(button.getAttribute("aria-checked") === "true" ? off : on),
  });
  return {
    root: button,
    show(value) {
      button.setAttribute("aria-checked", String(value === on));
      button.textContent = labelOf(value, input);
    },
  };
}

function choiceView(input: Input, onChange: OnChange): InputView {
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
function textView(input: Input, onChange: OnChange): InputView {
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
      // What somebody is typing stays; who goes back is followed.
      const isTyped = focusedBeside(root) === root && root.value !== now;
      now = String(value ?? "");
      if (!isTyped) root.value = now;
    },
  };
}

/** A number as a field, and as a stepper with two buttons: typed within its limits, or turned by arrow keys. */
function stepperView(input: Input, hasButtons: boolean, onChange: OnChange): InputView {
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
    // What is not taken as it was typed is said.
    if (isTyped) tell(read === undefined ? `“${field.value}” is no number.` : beyond(read));
    write();
    if (read !== undefined) onChange(Math.min(most, Math.max(least, read)));
  };
  const beyond = (read: number) => {
    if (read > most) return `At most ${formatNumber(most, input.format)}.`;
    return read < least ? `At least ${formatNumber(least, input.format)}.` : "";
  };
  const said = element("p", { class: "input-said", role: "status" });
  const tell = (text: string) => {
    said.textContent = text;
    said.hidden = text === "";
  };
  tell("");
  const step = (direction: 1 | -1) => {
    tell("");
    onChange(stepped(now, direction, input));
  };
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
    root: element(
      "div",
      {},
      element("div", { class: "board-stepper" }, ...(hasButtons ? [down, field, up] : [field])),
      said,
    ),
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
