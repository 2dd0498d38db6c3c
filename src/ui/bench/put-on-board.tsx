"use client";
import { LayoutGrid } from "lucide-react";
import { kindOf } from "@/core/kinds";
import { newBoard, visualTile } from "@/core/project/defaults";
import { MOST } from "@/core/project/most";
import type { Board, Visual } from "@/core/project/schema";
import { useFind } from "../shared/find-in-list";
import { freeLabel, newId } from "../shared/ids";
import { toast } from "../shared/notice";
import { PopoverButton } from "../shared/popover-button";
import { useProject, useProjectStore } from "../shared/project-context";
import { goWithin } from "../shared/step-link";

/** Puts a visual on one of the boards, or on a new one, and offers to go there. */
export function PutOnBoard({ visual }: { visual: Visual }) {
  const id = useProject((s) => s.id);
  const boards = useProject((s) => s.document.boards);
  const apply = useProject((s) => s.apply);
  const size = kindOf(visual.kind).tileSize(visual);
  const tile = visualTile(newId(), visual.id);
  const store = useProjectStore();
  const told = (board: Board, text: string) => {
    const leadsTo = `/p/${id}/boards?board=${board.id}`;
    toast(text, {
      duration: 10_000,
      leadsTo,
      step: store.getState().past.at(-1)?.changes,
      action: { label: `Open ${board.name}`, onClick: () => goWithin(leadsTo) },
    });
  };
  const put = (board: Board) => {
    if (board.tiles.length >= MOST.board.tiles)
      return void toast.error(
        `${board.name} has ${MOST.board.tiles} tiles, and a board has no more. Choose another.`,
      );
    apply({ type: "add tile", board: board.id, tile, size });
    told(board, `${visual.name} is on ${board.name}.`);
  };
  const begin = () => {
    const names = boards.map((b) => b.name);
    const board = newBoard({ id: newId(), name: freeLabel("New board", names) });
    const group = `board ${board.id}`;
    if (!apply({ type: "add board", board }, group)) return;
    apply({ type: "add tile", board: board.id, tile, size }, group);
    told(board, `${visual.name} is on a new board.`);
  };
  if (boards.length === 0)
    return (
      <button type="button" className="button h-7" onClick={begin}>
        <LayoutGrid size={13} /> Put on a new board
      </button>
    );
  return (
    <PopoverButton
      label="Boards to put it on"
      text={
        <>
          <LayoutGrid size={13} /> Put on a board
        </>
      }
      className="button h-7"
    >
      {(close) => (
        <BoardChoices
          boards={boards}
          onChoose={(board) => {
            close();
            if (board) put(board);
            else begin();
          }}
        />
      )}
    </PopoverButton>
  );
}

/** The boards to choose from, and a new one (null). */
function BoardChoices({ boards, onChoose }: { boards: Board[]; onChoose: (board: Board | null) => void }) {
  const find = useFind("Find a board", boards);
  const item = (key: string, text: string, board: Board | null) => (
    <button
      key={key}
      type="button"
      className="block w-full shrink-0 truncate rounded-sm px-2 py-1.5 text-left hover:bg-tint"
      onClick={() => onChoose(board)}
    >
      {text}
    </button>
  );
  return (
    <>
      {find.field}
      <div className={find.listLook}>
        {boards.filter((b) => find.fits(b.id)).map((b) => item(b.id, b.name, b))}
      </div>
      {item("a new one", "A new board", null)}
    </>
  );
}
