import type { QueryInput } from "@/core/plan/query";
import type { Project } from "@/core/project/schema";
import type { Answer } from "./answers";

/** What the page of a presented board is given by whoever made it. */
export interface Given {
  /** The id of the project, as events name it. */
  id: string;
  project: Project;
  /** The id of the board. */
  board: string;
  /** All boards of the project, for who walks through them. */
  boards: { id: string; name: string }[];
  /** What is answered already: all that the board asks as it begins. */
  answers: [QueryInput, Answer][];
  /** Where the project is answered from, by an interface like that of `/api/projects/ID`. */
  server: string;
  /** Where it is told what becomes of projects. */
  events: string;
  /** Where the reader goes from here. */
  close: string;
  /** The name under which this browser keeps the theme. */
  theme: string;
}
