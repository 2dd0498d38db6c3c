import type { QueryInput } from "@/core/plan/query";
import type { Project } from "@/core/project/schema";
import { type BoardState, boardReducer, seenVisual } from "@/core/view/board-state";
import { choicesIn, choicesQuery, hasMore } from "@/core/view/column-choices";
import { columnOfPick, type Picked, pickText, withoutGone } from "@/core/view/picks";
import type { Answers } from "./answers";

/**
 * The picks that an address begins with, until each was held to the categories that its column has: one that
 * went since would leave a board without rows. Stretches of time are left alone.
 */
export class AddressedPicks {
  private readonly waiting: Set<Picked>;

  constructor({ picks }: BoardState) {
    this.waiting = new Set(picks);
  }

  /** The questions which categories there are, for the picks that wait. */
  questions(state: BoardState, project: Project): QueryInput[] {
    return [...this.waiting].flatMap((picked) => this.asked(picked, state, project)?.query ?? []);
  }

  /**
   * The state without the categories that are no more, and those in words, as soon as an answer tells of one;
   * null as long as none does.
   */
  withoutGone(
    state: BoardState,
    project: Project,
    answers: Answers,
  ): { state: BoardState; words: string } | null {
    for (const picked of this.waiting) {
      const asked = this.asked(picked, state, project);
      const answer = asked && answers.of(asked.query);
      if (asked && !answer) continue;
      this.waiting.delete(picked);
      if (!asked || !answer || "error" in answer || hasMore(answer)) continue;
      const values = choicesIn(answer, undefined, project).map((choice) => choice.value);
      const found = withoutGone(picked, values);
      if (!found || !state.picks.includes(picked)) continue;
      const picks = state.picks.flatMap((p) => (p === picked ? (found.left ?? []) : p));
      return {
        state: boardReducer(state, { type: "become", state: { ...state, picks } }),
        words: pickText(found.gone, asked.seen, project),
      };
    }
    return null;
  }

  private asked(picked: Picked, state: BoardState, project: Project) {
    const visual = project.visuals.find((v) => v.id === picked.visual);
    const seen = visual && seenVisual(visual, state);
    const place = seen && columnOfPick(seen, picked.side, project);
    if (!seen || !place || place.by) return null;
    return { query: choicesQuery(place.table, place.column), seen };
  }
}
