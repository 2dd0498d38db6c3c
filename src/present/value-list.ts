import type { Value } from "@/core/base/value";
import { focusedBeside } from "@/render/roots";
import { element } from "./elements";

/** A value that can be ticked. */
export interface ListedValue {
  value: Value;
  label: string;
  /** How many rows have it, as far as that is known. */
  count: string;
}

/** The height of an entry, in pixels. */
const ROW = 28;
const HEIGHT = 9 * ROW;
/** From so many values on they are searched. */
const SEARCHED = 9;

/**
 * Values to tick, found by a part of their name; only those in sight are elements, however many there are.
 */
export class ValueList {
  readonly root: HTMLElement;
  private readonly search: HTMLInputElement;
  private readonly sight: HTMLElement;
  private readonly entries = element("div", { class: "value-entries" });
  private values: ListedValue[] = [];
  private found: ListedValue[] = [];
  private chosen: readonly Value[] = [];

  constructor(
    label: string,
    private readonly many: boolean,
    private readonly onToggle: (value: Value) => void,
    private readonly isSearched = true,
  ) {
    this.search = element("input", {
      type: "search",
      class: "value-search",
      placeholder: "Find a value",
      "aria-label": `Find in ${label}`,
      oninput: () => {
        this.find();
        this.sight.scrollTop = 0;
        this.draw();
      },
      onkeydown: (event: KeyboardEvent) => {
        if (event.key !== "ArrowDown") return;
        event.preventDefault();
        this.entries.querySelector<HTMLElement>("input")?.focus();
      },
    });
    this.sight = element(
      "div",
      {
        class: "value-sight",
        role: many ? "group" : "radiogroup",
        "aria-label": label,
        onscroll: () => this.draw(),
        onkeydown: (event: KeyboardEvent) => this.walk(event),
      },
      this.entries,
    );
    this.root = element("div", { class: "value-list" }, this.search, this.sight);
  }

  show(values: ListedValue[], chosen: readonly Value[]): void {
    this.values = values;
    this.chosen = chosen;
    this.search.hidden = !this.isSearched || values.length < SEARCHED;
    this.find();
    this.draw();
  }

  focus(): void {
    if (this.search.hidden) this.entries.querySelector<HTMLElement>("input")?.focus();
    else this.search.focus();
  }

  private find(): void {
    const wanted = this.search.hidden ? "" : this.search.value.trim().toLowerCase();
    this.found = wanted ? this.values.filter((v) => v.label.toLowerCase().includes(wanted)) : this.values;
    this.sight.style.height = `${Math.min(HEIGHT, Math.max(1, this.found.length) * ROW)}px`;
  }

  private draw(): void {
    const first = Math.max(0, Math.floor(this.sight.scrollTop / ROW) - 4);
    const past = Math.min(this.found.length, first + HEIGHT / ROW + 9);
    const focused = (focusedBeside(this.entries) as HTMLElement | null)?.dataset.at;
    const hadFocus = this.entries.contains(focusedBeside(this.entries));
    const rows = this.found.slice(first, past).map((v, i) => this.entry(v, first + i));
    this.entries.style.height = `${this.found.length * ROW}px`;
    this.entries.replaceChildren(
      ...(this.found.length === 0
        ? [element("p", { class: "value-none" }, "No value has this in its name.")]
        : rows),
    );
    if (hadFocus && focused !== undefined)
      this.entries.querySelector<HTMLElement>(`[data-at="${focused}"]`)?.focus();
  }

  private entry({ value, label, count }: ListedValue, at: number): HTMLElement {
    const box = element("input", {
      type: this.many ? "checkbox" : "radio",
      "data-at": at,
      onchange: () => this.onToggle(value),
    });
    box.checked = this.chosen.includes(value);
    const row = element(
      "label",
      { title: label },
      box,
      element("span", {}, label),
      element("span", { class: "value-count" }, count),
    );
    row.style.top = `${at * ROW}px`;
    return row;
  }

  /** Arrows go from entry to entry, beyond those in sight too. */
  private walk(event: KeyboardEvent): void {
    const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    const at = Number((event.target as HTMLElement).dataset.at);
    if (step === undefined || Number.isNaN(at)) return;
    event.preventDefault();
    const next = Math.min(this.found.length - 1, Math.max(0, at + step));
    const { scrollTop, clientHeight } = this.sight;
    if (next * ROW < scrollTop) this.sight.scrollTop = next * ROW;
    if ((next + 1) * ROW > scrollTop + clientHeight) this.sight.scrollTop = (next + 1) * ROW - clientHeight;
    this.draw();
    this.entries.querySelector<HTMLElement>(`[data-at="${next}"]`)?.focus();
  }
}
