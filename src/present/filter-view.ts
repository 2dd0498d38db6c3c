import type { Filter, QueryInput } from "@/core/plan/query";
import type { Project, Setting } from "@/core/project/schema";
import type { FilterOfBoard } from "@/core/view/settings";
import type { Answer } from "./answers";

/** What a filter of a board asks, and how it stands beside the others. */
export interface FilterGround {
  project: Project;
  /** What the other controls ask of the filter's table. */
  others: Filter[];
  /** The answer to a query, if it is there; it is asked for with all that the board asks. */
  answer: (query: QueryInput) => Answer | null;
  /** The same of what can wait until the board stands. */
  later: (query: QueryInput) => Answer | null;
}

/** A filter of a board, which shows what it is set to. */
export interface FilterView {
  root: HTMLElement;
  show(setting: Setting, ground: FilterGround): void;
}

/** What a filter does. */
export interface FilterWishes {
  control: FilterOfBoard;
  /** `live`: it goes on being set, and what comes between can be left out. */
  set: (setting: Setting, live?: boolean) => void;
  /** Shows anew, since what it asks has changed. */
  refresh: () => void;
}
