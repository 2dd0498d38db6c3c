import { own } from "../base/own";
import type { Board, Project } from "../project/schema";
import { answeringTiles, type BoardState, seenVisual } from "./board-state";
import { type Picked, pickText } from "./picks";
import { trailOf } from "./steps";

/** What the button says that takes back all that is picked. */
export const CLEAR_ALL = "Clear all";

/** A pick in words: "route: North Quay", and the name of the visual that it is from. */
export interface PickInWords {
  picked: Picked;
  text: string;
  from: string;
}

/** What is picked on a board, in words, as far as its visuals are still there. */
export const pickedInWords = (state: Pick<BoardState, "picks" | "steps">, project: Project): PickInWords[] =>
  state.picks.flatMap((picked) => {
    const visual = project.visuals.find((v) => v.id === picked.visual);
    if (!visual) return [];
    const trail = trailOf(visual, own(state.steps, visual.id) ?? [], project);
    const text = pickText(picked, seenVisual(visual, state), project);
    return [{ picked, text, from: [visual.name, ...trail].join(" › ") }];
  });

/** "1 visual answers", "4 visuals answer". */
const counted = (count: number, one: string, many: string) => `${count} ${count === 1 ? one : many}`;

/** Who answers what is picked, in words: "4 visuals answer, 1 stands aside". */
export function answersText(
  state: Pick<BoardState, "picks" | "steps">,
  { board, project }: { board: Board; project: Project },
): string {
  const { answer, aside, without } = answeringTiles(board, state, project);
  return [
    counted(answer, "visual answers", "visuals answer"),
    ...(aside > 0 ? [counted(aside, "stands aside", "stand aside")] : []),
    ...(without > 0 ? [counted(without, "has no such column", "have no such column")] : []),
  ].join(", ");
}
