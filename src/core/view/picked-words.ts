import type { Board, Project } from "../project/schema";
import { answeringTiles, type BoardState } from "./board-state";
import { type Picked, pickText } from "./picks";

/** A pick in words: "route: North Quay", and the name of the visual that it is from. */
export interface PickInWords {
  picked: Picked;
  text: string;
  from: string;
}

/** What is picked on a board, in words, as far as its visuals are still there. */
export const pickedInWords = ({ picks }: Pick<BoardState, "picks">, project: Project): PickInWords[] =>
  picks.flatMap((picked) => {
    const visual = project.visuals.find((v) => v.id === picked.visual);
    return visual ? [{ picked, text: pickText(picked, visual, project), from: visual.name }] : [];
  });

/** "1 visual answers", "4 visuals answer". */
const counted = (count: number, one: string, many: string) => `${count} ${count === 1 ? one : many}`;

/** Who answers what is picked, in words: "4 visuals answer, 1 stands aside". */
export function answersText(
  state: Pick<BoardState, "picks">,
  { board, project }: { board: Board; project: Project },
): string {
  const { answer, aside, without } = answeringTiles(board, state, project);
  return [
    counted(answer, "visual answers", "visuals answer"),
    ...(aside > 0 ? [counted(aside, "stands aside", "stand aside")] : []),
    ...(without > 0 ? [counted(without, "has no such column", "have no such column")] : []),
  ].join(", ");
}
