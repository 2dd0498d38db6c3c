import { own } from "@/core/base/own";
import type { Value } from "@/core/base/value";
import { columnNamed } from "@/core/formula/scope-names";
import { scopeOf } from "@/core/project/names";
import type { Board, Control, Input, Project, Setting } from "@/core/project/schema";
import { type BoardAction, type BoardState, filtersOf, inputsOf, settingIn } from "@/core/view/board-state";
import { type Choice, choicesIn, choicesQuery, hasMore } from "@/core/view/column-choices";
import { tableKnows } from "@/core/view/picks";
import type { FilterOfBoard } from "@/core/view/settings";
import type { Answers } from "./answers";
import { buttonsView, listView } from "./choice-view";
import { datesView } from "./dates-view";
import { element } from "./elements";
import type { FilterGround, FilterView, FilterWishes } from "./filter-view";
import { type InputView, inputView } from "./input-view";
import { stretchView } from "./stretch-view";
import { textView } from "./text-view";

/** A board with the document that it is of. */
export interface Presented {
  project: Project;
  board: Board;
}

/** What controls do: `live` where what comes between can be left out. */
export interface ControlWishes {
  act: (action: BoardAction, live: boolean) => void;
  /** Shows anew, since what a control asks has changed. */
  refresh: () => void;
}

/** The filters and inputs of a board, in their order. */
export class BoardControls {
  readonly elements: HTMLElement[];
  private readonly filters: { control: FilterOfBoard; view: FilterView }[] = [];
  private readonly inputs: { input: Input; view: InputView }[] = [];

  constructor(
    { project, board }: Presented,
    private readonly wishes: ControlWishes,
  ) {
    this.elements = board.controls.flatMap((control) => this.controlOf(control, project) ?? []);
  }

  /** Shows the state as it is now, and what can be chosen. */
  show(
    state: BoardState,
    { project, board }: Presented,
    { answer, later }: Pick<FilterGround, "answer" | "later">,
  ): void {
    for (const { control, view } of this.filters) {
      const besides = board.controls.filter((c) => c.id !== control.id);
      const others = filtersOf(besides, state);
      view.show(settingIn(state, control), {
        project,
        others: others.filter((f) => tableKnows(control.table, f.column, project)),
        answer,
        later,
      });
    }
    const values = inputsOf(project.inputs, state);
    const choicesOf = (table: string, column: string) =>
      choicesIn(answer(choicesQuery(table, column)), undefined, project);
    for (const { input, view } of this.inputs)
      view.show(own(values, input.name) ?? input.value, choicesForInput(input, choicesOf));
  }

  /** The values of filters that no row has, as far as all values of their columns are known. */
  absent(
    state: BoardState,
    project: Project,
    answers: Answers,
  ): { control: string; label: string; names: string[]; setting: Setting }[] {
    return this.filters.flatMap(({ control }) => {
      const setting = own(state.set, control.id);
      const { table, column, by, label, as } = control;
      const answer = as === "buttons" ? answers.of(choicesQuery(table, column, by)) : null;
      if (!setting || !("in" in setting) || !answer || "error" in answer || hasMore(answer)) return [];
      const there = new Set(choicesIn(answer, by, project).map((c) => c.value));
      const gone = setting.in.filter((v) => !there.has(v));
      const left: Setting = { in: setting.in.filter((v) => there.has(v)) };
      return gone.length > 0 ? [{ control: control.id, label, names: gone.map(String), setting: left }] : [];
    });
  }

  private controlOf(control: Control, project: Project): HTMLElement | null {
    const { act, refresh } = this.wishes;
    if (control.type === "filter") {
      if (!columnNamed(scopeOf(project), control.table, control.column)) return goneView(control);
      const set: FilterWishes["set"] = (setting, live = false) =>
        act({ type: "set filter", control: control.id, setting }, live);
      const view = filterView({ control, set, refresh }, project);
      this.filters.push({ control, view });
      return element(
        "fieldset",
        {
          class: "board-control",
          part: "control",
          "data-control": control.id,
          "data-width": widthOf(control),
        },
        element("legend", { title: control.label }, control.label),
        view.root,
      );
    }
    const input = project.inputs.find((i) => i.id === control.input);
    if (!input) return null;
    const view = inputView(input, control.as, (value, live = false) =>
      act({ type: "set input", name: input.name, value }, live),
    );
    this.inputs.push({ input, view });
    view.root.dataset.control = control.id;
    view.root.setAttribute("part", "control");
    const width = widthOf(control);
    if (width) view.root.dataset.width = width;
    return view.root;
  }
}

/** How wide a control is made, where that is not as what is in it. */
const widthOf = ({ width }: Control) => (width === "automatic" ? null : width);

/** A filter whose column is not there any more: it filters nothing, and says so. */
const goneView = ({ label, table, column }: FilterOfBoard): HTMLElement =>
  element(
    "fieldset",
    { class: "board-control" },
    element("legend", { title: label }, label),
    element("p", { class: "board-gone" }, `${table} has no column ${column} any more`),
  );

/** A filter by its form, and by the type of its column. */
function filterView(wishes: FilterWishes, project: Project): FilterView {
  const { table, column, as } = wishes.control;
  if (as === "list" || as === "menu") return listView(wishes, as === "list");
  if (as === "text") return textView(wishes);
  if (as === "buttons") return buttonsView(wishes);
  const type = columnNamed(scopeOf(project), table, column)?.type;
  return type === "number" ? stretchView(wishes) : datesView(wishes, type === "timestamp");
}

/** The values that an input can be chosen from; null where any value can be set. */
export function choicesForInput(
  { choices, choicesFrom, type }: Input,
  choicesOf: (table: string, column: string) => Choice[],
): Value[] | null {
  if (!choicesFrom) return choices.length > 0 ? choices : null;
  const wanted = type === "number" ? "number" : "string";
  return choicesOf(choicesFrom.table, choicesFrom.column)
    .map((c) => c.value)
    .filter((v) => typeof v === wanted);
}
