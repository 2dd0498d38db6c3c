"use client";
import { LayoutGrid, Play, Trash2 } from "lucide-react";
import { usePathname, useSearchParams } from "next/navigation";
import { useEffect, useRef, useState } from "react";
import { createPortal } from "react-dom";
import { copyOfBoard } from "@/core/project/arrange";
import { newBoard } from "@/core/project/defaults";
import type { Board } from "@/core/project/schema";
import { walkFrom, writeWalk } from "@/core/view/walk";
import { leaves } from "@/present/elements";
import type { Walking } from "@/present/walking";
import { later } from "../shared/fetched-later";
import { freeLabel, newId } from "../shared/ids";
import { useProject } from "../shared/project-context";
import { useSelected } from "../shared/selected";
import { useTellRemoved } from "../shared/tell-edit";
import { useTheme } from "../shared/theme";
import { AddFilter } from "./add-filter";
import { BoardStrip } from "./board-strip";
import { KeepState } from "./keep-state";
import { Presented } from "./presented";
import { useReaderState } from "./reader-state";

// A board that is only looked at does not fetch what arranging needs.
const ArrangedBoard = later(() => import("./arranged-board").then((m) => m.ArrangedBoard));

/** The board that is chosen: looked at, arranged or presented, with what its reader has changed. */
function BoardStage({
  board,
  mode,
  tools,
  walking,
  onClose,
}: {
  board: Board;
  mode: Mode;
  /** Where buttons that depend on the state stand. */
  tools: Element | null;
  walking: Walking;
  onClose: () => void;
}) {
  const reader = useReaderState(board);
  const { state, left, change, link } = reader;
  const keep = tools && createPortal(<KeepState board={board} state={state} />, tools);
  if (mode === "arranged")
    return (
      <>
        {keep}
        <ArrangedBoard board={board} reader={reader} />
      </>
    );
  return (
    <>
      {keep}
      <Presented
        board={board}
        state={state}
        left={left}
        onState={change}
        link={link}
        {...(mode === "presented" ? { walking, onClose } : {})}
      />
    </>
  );
}

/** How a board stands in the window. */
type Mode = "looked at" | "arranged" | "presented";

/** The fourth step: boards, to look at, to arrange and to present. */
export function BoardsScreen() {
  const boards = useProject((s) => s.document.boards);
  const apply = useProject((s) => s.apply);
  const tellRemoved = useTellRemoved();
  const [board, choose] = useSelected("board", boards);
  const [arranging, setArranging] = useState(false);
  const [tools, setTools] = useState<Element | null>(null);
  const path = usePathname();
  const theme = useTheme((s) => s.theme);
  const address = useSearchParams();
  const presents = address.get("present") === "1";
  const walking: Walking = {
    boards: boards.map(({ id, name }) => ({ id, name })),
    walk: walkFrom(new URLSearchParams(address), boards),
    onWalk: (walk) => {
      const params = new URLSearchParams(window.location.search);
      writeWalk(params, walk);
      window.history.replaceState(null, "", `${path}?${params}`);
    },
    // The next board is shown as it begins.
    onGo: (id) => {
      const params = new URLSearchParams({ board: id, present: "1" });
      writeWalk(params, walking.walk);
      if (theme === "night") params.set("theme", theme);
      window.history.replaceState(null, "", `${path}?${params}`);
    },
  };
  const present = (on: boolean) => {
    setArranging(false);
    // What its reader has changed stays.
    const params = new URLSearchParams(window.location.search);
    if (board) params.set("board", board.id);
    for (const name of ["present", "theme"]) params.delete(name);
    writeWalk(params, null);
    if (on) params.set("present", "1");
    if (on && theme === "night") params.set("theme", theme);
    window.history.replaceState(null, "", `${path}?${params}`);
  };
  const closePresented = useRef(() => {});
  useEffect(() => {
    closePresented.current = () => present(false);
  });
  useEffect(() => {
    if (!presents) return;
    const close = (event: KeyboardEvent) => {
      if (leaves(event)) closePresented.current();
    };
    window.addEventListener("keydown", close);
    return () => window.removeEventListener("keydown", close);
  }, [presents]);
  const add = () => {
    const names = boards.map((b) => b.name);
    const made = newBoard({ id: newId(), name: freeLabel("New board", names) });
    if (!apply({ type: "add board", board: made })) return;
    choose(made.id);
    setArranging(true);
  };
  const duplicate = (of: Board) => {
    const name = freeLabel(
      `${of.name} copy`,
      boards.map((b) => b.name),
    );
    const made = copyOfBoard(of, name, newId);
    if (apply({ type: "add board", board: made })) choose(made.id);
  };
  const remove = ({ id, name }: Board) => {
    apply({ type: "remove board", id });
    setArranging(false);
    tellRemoved(`${name} is removed.`);
  };
  if (!board) {
    return (
      <div className="grid h-full place-items-center p-8 text-center">
        <div className="max-w-sm">
          <h1 className="text-lg">A board is a page of visuals</h1>
          <p className="mt-2 text-muted">
            Place visuals on a grid, add a filter and a stepper for a target, and present it.
          </p>
          <button type="button" className="button button-strong mt-4" onClick={add}>
            New board
          </button>
        </div>
      </div>
    );
  }
  return (
    <div className="flex h-full flex-col">
      {!presents && (
        <div className="flex shrink-0 flex-wrap items-center gap-x-4 gap-y-1.5 border-b border-rule px-5 py-1.5 max-sm:px-3">
          <BoardStrip
            boards={boards}
            board={board}
            onChoose={choose}
            onAdd={add}
            onDuplicate={duplicate}
            onRemove={remove}
          />
          <div className="flex shrink-0 items-center gap-1.5 max-sm:flex-wrap">
            {arranging && (
              <button
                type="button"
                className="icon-button size-7"
                aria-label={`Remove the board ${board.name}`}
                onClick={() => remove(board)}
              >
                <Trash2 size={14} />
              </button>
            )}
            <span ref={setTools} className="contents" />
            {board.tiles.length > 0 && <AddFilter board={board} />}
            <button
              type="button"
              aria-pressed={arranging}
              className={`button h-7 ${arranging ? "button-strong" : ""}`}
              onClick={() => setArranging(!arranging)}
            >
              <LayoutGrid size={14} /> Arrange
            </button>
            <button type="button" className="button h-7" onClick={() => present(true)}>
              <Play size={14} /> Present
            </button>
          </div>
        </div>
      )}
      <div className="min-h-0 flex-1 narrow:overflow-auto">
        <BoardStage
          key={board.id}
          board={board}
          mode={presents ? "presented" : arranging ? "arranged" : "looked at"}
          tools={tools}
          walking={walking}
          onClose={() => present(false)}
        />
      </div>
    </div>
  );
}
