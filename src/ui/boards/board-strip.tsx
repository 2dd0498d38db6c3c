"use client";
import { LayoutList, Plus } from "lucide-react";
import { usePathname } from "next/navigation";
import { useState } from "react";
import type { Board } from "@/core/project/schema";
import { later, OVER, UNASKED } from "../shared/fetched-later";
import { ItemList } from "../shared/item-list";
import { useItemMenu } from "../shared/item-menu";
import { useProject } from "../shared/project-context";
import { useTheme } from "../shared/theme";
import { BoardSketch } from "./board-sketch";

const FindOne = later(() => import("../shared/find-one").then((m) => m.FindOne), {
  ...UNASKED,
  waiting: ({ button, children }) => (
    <button type="button" disabled {...button}>
      {children}
    </button>
  ),
});
const RenameDialog = later(() => import("../shared/rename-dialog").then((m) => m.RenameDialog), OVER);

/** With more boards than this one is found by its name too. */
const FEW = 8;

interface Props {
  boards: Board[];
  /** The one that is chosen. */
  board: Board;
  onChoose: (id: string) => void;
  onAdd: () => void;
  onDuplicate: (board: Board) => void;
  onRemove: (board: Board) => void;
}

/** The boards of a project side by side, to choose one, to find one among many, and to add one. */
export function BoardStrip({ boards, board, onChoose, onAdd, onDuplicate, onRemove }: Props) {
  const apply = useProject((s) => s.apply);
  const theme = useTheme((s) => s.theme);
  const path = usePathname();
  const { menuOf, menu } = useItemMenu();
  const [renaming, setRenaming] = useState<Board | null>(null);
  const { id } = board;
  return (
    <div className="flex min-w-0 flex-1 items-center gap-1.5 max-sm:basis-full">
      {boards.length > FEW && (
        <FindOne
          label="Find a board"
          list="Boards"
          align="start"
          button={{ className: "button h-7 shrink-0", "aria-label": `Find one of ${boards.length} boards` }}
          chosen={id}
          options={boards.map((b) => ({ key: b.id, label: b.name, pick: () => onChoose(b.id) }))}
        >
          <LayoutList size={14} aria-hidden="true" /> {boards.length}
        </FindOne>
      )}
      <ItemList label="Boards" className="flex min-w-0 items-center gap-1.5 overflow-x-auto">
        {boards.map((b) => (
          <button
            key={b.id}
            type="button"
            data-item
            title={b.name}
            aria-current={b.id === id}
            onClick={() => onChoose(b.id)}
            onContextMenu={menuOf(b.name, [
              { label: "Rename …", run: () => setRenaming(b) },
              { label: "Duplicate", run: () => onDuplicate(b) },
              {
                label: "Open on a page of its own",
                run: () =>
                  window.open(
                    path.replace(/boards$/, `present/${encodeURIComponent(b.id)}?theme=${theme}`),
                    "_blank",
                  ),
              },
              { label: "Remove", run: () => onRemove(b) },
            ])}
            className={`flex h-7 max-w-60 shrink-0 items-center gap-1.5 rounded-sm px-2 text-sm ${b.id === id ? "bg-tint font-semibold text-verdigris-deep" : "text-muted hover:bg-well hover:text-ink"}`}
          >
            <BoardSketch board={b} />
            <span className="truncate">{b.name}</span>
          </button>
        ))}
      </ItemList>
      <button type="button" className="icon-button size-7 shrink-0" aria-label="New board" onClick={onAdd}>
        <Plus size={14} />
      </button>
      {menu}
      {renaming && (
        <RenameDialog
          name={renaming.name}
          onRename={(name) => apply({ type: "rename board", id: renaming.id, name })}
          onClose={() => setRenaming(null)}
        />
      )}
    </div>
  );
}
