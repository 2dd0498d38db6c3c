import { own } from "@/core/base/own";
import type { Value } from "@/core/base/value";
import type { Board, Control, Input, Project } from "@/core/project/schema";
import {
  type BoardAction,
  type BoardState,
  chosenIn,
  type FilterOfBoard,
  inputsOf,
} from "@/core/view/board-state";
import type { Choice } from "@/core/view/column-choices";
import { FilterView } from "./filter-view";
import { type InputView, inputView } from "./input-view";

/** A board with the document that it is of. */
export interface Presented {
  project: Project;
  board: Board;
}

/** The values of a column that can be chosen, as far as they are known; asks for them. */
export type ChoicesOf = (table: string, column: string, by?: FilterOfBoard["by"]) => Choice[];

/** The filters and inputs of a board, in their order. */
export class BoardControls {
  readonly elements: HTMLElement[];
  private readonly filters: { control: FilterOfBoard; view: FilterView }[] = [];
  private readonly inputs: { input: Input; view: InputView }[] = [];

  constructor(
    { project, board }: Presented,
    private readonly act: (action: BoardAction) => void,
  ) {
    this.elements = board.controls.flatMap((control) => this.controlOf(control, project) ?? []);
  }

  /** Shows the state as it is now, and what can be chosen. */
  show(state: BoardState, project: Project, choicesOf: ChoicesOf): void {
    for (const { control, view } of this.filters)
      view.show(choicesOf(control.table, control.column, control.by), chosenIn(state, control));
    const values = inputsOf(project.inputs, state);
    for (const { input, view } of this.inputs)
      view.show(own(values, input.name) ?? input.value, choicesForInput(input, choicesOf));
  }

  private controlOf(control: Control, { inputs }: Project): HTMLElement | null {
    if (control.type === "filter") {
      const view = new FilterView(control, (values) =>
        this.act({ type: "choose", control: control.id, values }),
      );
      this.filters.push({ control, view });
      return view.root;
    }
    const input = inputs.find((i) => i.id === control.input);
    if (!input) return null;
    const view = inputView(input, (value) => this.act({ type: "set input", name: input.name, value }));
    this.inputs.push({ input, view });
    return view.root;
  }
}

/** The values that an input can be chosen from; null where any value can be set. */
export function choicesForInput({ choices, choicesFrom, type }: Input, choicesOf: ChoicesOf): Value[] | null {
  if (!choicesFrom) return choices.length > 0 ? choices : null;
  const wanted = type === "number" ? "number" : "string";
  return choicesOf(choicesFrom.table, choicesFrom.column)
    .map((c) => c.value)
    .filter((v) => typeof v === wanted);
}
