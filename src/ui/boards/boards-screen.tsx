"use client";
import { LayoutGrid, Play, Plus, Trash2 } from "lucide-react";
import { usePathname, useSearchParams } from "next/navigation";
import { useEffect, useMemo, useState } from "react";
import { own } from "@/core/base/own";
import type { Value } from "@/core/base/value";
import type { Board, Control, Tile, Visual } from "@/core/project/schema";
import { GAP, ROW_HEIGHT, tileStyle } from "@/core/project/tile-layout";
import { type RowKey, subjectOf } from "@/core/rows/row-key";
import { chosenAlone, chosenIn, filterForSplit } from "@/core/view/board-state";
import { leaves } from "@/present/elements";
import { Busy } from "../shared/busy";
import { later, OVER, UNASKED } from "../shared/fetched-later";
import { freeLabel, newId } from "../shared/ids";
import { ItemList } from "../shared/item-list";
import { useItemMenu } from "../shared/item-menu";
import { useProject } from "../shared/project-context";
import { useSelected } from "../shared/selected";
import { nameInAddress } from "../shared/step-link";
import { useTellEdit } from "../shared/tell-edit";
import { useTheme } from "../shared/theme";
import { useVisualsData } from "../shared/visual-data";
import { AddFilter } from "./add-filter";
import { useBoardCells } from "./board-cells";
import { BoardSketch } from "./board-sketch";
import { type BoardView, useBoardState } from "./board-state";
import { FilterControl } from "./filter-control";
import { InputControl } from "./input-control";
import { Presented } from "./presented";
import { TextTile, VisualTile } from "./tile-content";

// A board that is only looked at does not fetch what arranging needs.
const ArrangePanel = later(() => import("./arrange-panel").then((m) => m.ArrangePanel));
const ArrangeGrid = later(() => import("./arrange-grid").then((m) => m.ArrangeGrid));
const CommitField = later(() => import("../shared/commit-field").then((m) => m.CommitField), UNASKED);
const RenameDialog = later(() => import("../shared/rename-dialog").then((m) => m.RenameDialog), OVER);
const TileFindings = later(() => import("./tile-findings").then((m) => m.TileFindings), UNASKED);

function Controls({ board, view, arranging }: { board: Board; view: BoardView; arranging: boolean }) {
  const inputs = useProject((s) => s.document.inputs);
  const apply = useProject((s) => s.apply);
  const choose = (control: Extract<Control, { type: "filter" }>, values: Value[]) => {
    view.act({ type: "choose", control: control.id, values });
    if (arranging)
      apply(
        { type: "choose in filter", board: board.id, control: control.id, chosen: values },
        `chosen ${control.id}`,
      );
  };
  return board.controls.map((control) => {
    if (control.type === "filter")
      return (
        <FilterControl
          key={control.id}
          control={control}
          chosen={chosenIn(view.state, control)}
          onChoose={(values) => choose(control, values)}
        />
      );
    const input = inputs.find((i) => i.id === control.input);
    if (!input) return null;
    const change = (value: Value) => {
      view.act({ type: "set input", name: input.name, value });
      if (arranging) apply({ type: "change input", id: input.id, change: { value } }, `input ${input.id}`);
    };
    return (
      <InputControl
        key={control.id}
        input={input}
        value={own(view.inputs, input.name) ?? input.value}
        onChange={change}
      />
    );
  });
}

function BoardPage({ board, arranging }: { board: Board; arranging: boolean }) {
  const project = useProject((s) => s.document);
  const apply = useProject((s) => s.apply);
  const view = useBoardState(board, project);
  const visuals = useMemo(
    () =>
      board.tiles.flatMap((t) =>
        t.type === "visual" ? (project.visuals.find((v) => v.id === t.visual) ?? []) : [],
      ) as Visual[],
    [board.tiles, project.visuals],
  );
  const data = useVisualsData(visuals, view.filters, view.inputs);
  useBoardCells(board, visuals, view, !arranging && data.every((d) => !d.pending));

  /** A click on a part of a visual sets the board's filter on the same column, or takes it back. */
  const pick = (visual: Visual) => {
    const control = filterForSplit(visual, board, project);
    if (!control || arranging) return undefined;
    return (key: RowKey) => {
      const subject = subjectOf(key);
      if (subject.type !== "category") return;
      const values = chosenAlone(chosenIn(view.state, control), subject.value);
      view.act({ type: "choose", control: control.id, values });
    };
  };
  const render = (tile: Tile) => {
    if (tile.type === "text") return <TextTile text={tile.text} />;
    const at = visuals.findIndex((v) => v.id === tile.visual);
    if (at < 0) return <TextTile text="The visual of this tile was removed." />;
    return (
      <Busy pending={data[at].pending} className="size-full">
        <VisualTile visual={visuals[at]} data={data[at].data} onPick={pick(visuals[at])} still={arranging} />
      </Busy>
    );
  };
  const findings = (tile: Tile) => {
    const at = tile.type === "visual" ? visuals.findIndex((v) => v.id === tile.visual) : -1;
    return at < 0 ? null : <TileFindings visual={visuals[at]} data={data[at].data} />;
  };
  const nameOf = (tile: Tile) =>
    tile.type === "text" ? "text" : (project.visuals.find((v) => v.id === tile.visual)?.name ?? "visual");
  const ordered = board.tiles.toSorted((a, b) => a.y - b.y || a.x - b.x);
  return (
    <div className="flex h-full min-h-0 flex-col narrow:h-auto narrow:min-h-full">
      <div className="flex flex-wrap items-end gap-x-5 gap-y-2 border-b border-rule px-6 py-3 max-sm:px-4">
        <h1 className="min-w-0 self-center text-xl max-sm:w-full">
          {arranging ? (
            <CommitField
              label="Board name"
              value={board.name}
              check={(t) => (t.trim() ? null : "A name is needed.")}
              onCommit={(t) => apply({ type: "rename board", id: board.id, name: t.trim().slice(0, 120) })}
            />
          ) : (
            board.name
          )}
        </h1>
        <Controls board={board} view={view} arranging={arranging} />
        {board.tiles.length > 0 && <AddFilter board={board} />}
      </div>
      <div className="flex min-h-0 flex-1 narrow:flex-col">
        <div
          className="min-h-0 min-w-0 flex-1 overflow-auto p-5 max-sm:p-3 narrow:overflow-visible"
          role="region"
          aria-label="Board"
          // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls is reachable by keyboard
          tabIndex={0}
        >
          {board.tiles.length === 0 && (
            <div className="grid h-full place-items-center text-center">
              <p className="max-w-xs text-muted">
                {arranging
                  ? "Add visuals from the list at the right."
                  : "This board is empty. Press Arrange to put visuals, filters and inputs on it."}
              </p>
            </div>
          )}
          {arranging ? (
            board.tiles.length > 0 && (
              <ArrangeGrid board={board} nameOf={nameOf} render={render} beside={findings} />
            )
          ) : (
            <div className="board-grid" style={{ gridAutoRows: ROW_HEIGHT, gap: GAP }}>
              {ordered.map((tile) => (
                <div key={tile.id} className="min-w-0" style={tileStyle(tile) as React.CSSProperties}>
                  {render(tile)}
                </div>
              ))}
            </div>
          )}
        </div>
        {arranging && <ArrangePanel board={board} />}
      </div>
    </div>
  );
}

/** The fourth step: boards, to look at, to arrange and to present. */
export function BoardsScreen() {
  const boards = useProject((s) => s.document.boards);
  const apply = useProject((s) => s.apply);
  const tellEdit = useTellEdit();
  const [board, choose] = useSelected("board", boards);
  const [arranging, setArranging] = useState(false);
  const { menuOf, menu } = useItemMenu();
  const [renaming, setRenaming] = useState<Board | null>(null);
  const path = usePathname();
  const theme = useTheme((s) => s.theme);
  const presents = useSearchParams().get("present") === "1";
  const present = (on: boolean) => {
    setArranging(false);
    nameInAddress(path, {
      ...(board ? { board: board.id } : {}),
      ...(on ? { present: "1" } : {}),
      ...(on && theme === "night" ? { theme } : {}),
    });
  };
  useEffect(() => {
    if (!presents) return;
    const close = (event: KeyboardEvent) => {
      if (leaves(event)) nameInAddress(path, board ? { board: board.id } : {});
    };
    window.addEventListener("keydown", close);
    return () => window.removeEventListener("keydown", close);
  }, [presents, path, board]);
  const add = () => {
    const made: Board = {
      id: newId(),
      name: freeLabel(
        "New board",
        boards.map((b) => b.name),
      ),
      tiles: [],
      controls: [],
    };
    apply({ type: "add board", board: made });
    choose(made.id);
    setArranging(true);
  };
  const duplicate = (of: Board) => {
    const name = freeLabel(
      `${of.name} copy`.slice(0, 110),
      boards.map((b) => b.name),
    );
    const made: Board = {
      id: newId(),
      name,
      tiles: of.tiles.map((tile) => ({ ...tile, id: newId() })),
      controls: of.controls.map((control) => ({ ...control, id: newId() })),
    };
    apply({ type: "add board", board: made });
    choose(made.id);
  };
  const remove = ({ id, name }: Board) => {
    apply({ type: "remove board", id });
    setArranging(false);
    tellEdit(`${name} is removed.`);
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
        <ItemList
          label="Boards"
          className="flex shrink-0 items-center gap-1.5 overflow-x-auto border-b border-rule px-5 py-1.5 max-sm:px-3"
        >
          {boards.map((b) => (
            <button
              key={b.id}
              type="button"
              data-item
              title={b.name}
              aria-current={b.id === board.id}
              onClick={() => choose(b.id)}
              onContextMenu={menuOf(b.name, [
                { label: "Rename …", run: () => setRenaming(b) },
                { label: "Duplicate", run: () => duplicate(b) },
                {
                  label: "Open on a page of its own",
                  run: () =>
                    window.open(
                      path.replace(/boards$/, `present/${encodeURIComponent(b.id)}?theme=${theme}`),
                      "_blank",
                    ),
                },
                { label: "Remove", run: () => remove(b) },
              ])}
              className={`flex h-7 max-w-60 shrink-0 items-center gap-1.5 rounded-sm px-2 text-sm ${b.id === board.id ? "bg-tint font-semibold text-verdigris-deep" : "text-muted hover:bg-well hover:text-ink"}`}
            >
              <BoardSketch board={b} />
              <span className="truncate">{b.name}</span>
            </button>
          ))}
          <button type="button" className="icon-button size-7 shrink-0" aria-label="New board" onClick={add}>
            <Plus size={14} />
          </button>
          <span className="flex-1" />
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
        </ItemList>
      )}
      {menu}
      {renaming && (
        <RenameDialog
          name={renaming.name}
          onRename={(name) => apply({ type: "rename board", id: renaming.id, name })}
          onClose={() => setRenaming(null)}
        />
      )}
      <div className="min-h-0 flex-1 narrow:overflow-auto">
        {presents ? (
          <Presented key={board.id} board={board} onClose={() => present(false)} />
        ) : (
          <BoardPage key={board.id} board={board} arranging={arranging} />
        )}
      </div>
    </div>
  );
}
