"use client";
import type { Board } from "@/core/project/schema";
import { type BoardState, keepable } from "@/core/view/board-state";
import { useProject } from "../shared/project-context";
import { useTellEdit } from "../shared/tell-edit";

/** Lets the author keep what was changed on a board as what it begins with; nothing where nothing was. */
export function KeepState({ board, state }: { board: Board; state: BoardState }) {
  const inputs = useProject((s) => s.document.inputs);
  const apply = useProject((s) => s.apply);
  const tellEdit = useTellEdit();
  const { set, values } = keepable(board.controls, inputs, state);
  if (set.length === 0 && values.length === 0) return null;
  return (
    <button
      type="button"
      className="button h-7 shrink-0"
      title="What filters and inputs are set to now is what readers of this board begin with"
      onClick={() => {
        apply({ type: "keep state", board: board.id, set, values });
        tellEdit(`${board.name} begins so from now on.`);
      }}
    >
      Begin with this
    </button>
  );
}
