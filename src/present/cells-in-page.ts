import { parseIsoDate } from "@/core/base/calendar";
import { todayIn } from "@/core/base/today";
import { fromBytes } from "@/core/data/plain-bytes";
import { answerFromCells } from "@/core/engine/cells/cell-answer";
import { indexOf, type PlainIndex } from "@/core/engine/cells/plain-index";
import { wholeQuery } from "@/core/plan/whole-query";
import { scopeOf } from "@/core/project/names";
import type { Project } from "@/core/project/schema";
import type { PageSource } from "./answers";

/** Cells of a board in its page. */
export interface CellsInPage {
  /** Answers from them; null for each query that they do not tell. */
  answer: PageSource;
  /** Whether others would tell no more, however the board is filtered. */
  isSettled: boolean;
}

/**
 * Cells of a board that a server gathered, as bytes of `toBytes`. Throws an Error where the bytes are of
 * another kind of machine.
 */
export function cellsInPage(bytes: Uint8Array, project: Project): CellsInPage {
  const index = indexOf(fromBytes(bytes) as PlainIndex);
  const scope = scopeOf(project);
  const inputs = Object.fromEntries(project.inputs.map((i) => [i.name, i.value]));
  const answer: PageSource = (queries) => {
    // They are of a day; after midnight the server gathers others.
    if (parseIsoDate(todayIn(scope.timeZone)) !== index.today) return queries.map(() => null);
    return answerFromCells(queries.map(wholeQuery), index, { scope, inputs }, () => performance.now());
  };
  return { answer, isSettled: index.isSettled };
}
