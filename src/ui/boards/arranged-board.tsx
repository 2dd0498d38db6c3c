"use client";
import { useMemo, useState } from "react";
import type { Board, Tile, Visual } from "@/core/project/schema";
import { filtersOf, inputsOf } from "@/core/view/board-state";
import { Busy } from "../shared/busy";
import { later, UNASKED } from "../shared/fetched-later";
import { useProject } from "../shared/project-context";
import { useVisualsData } from "../shared/visual-data";
import { ArrangeGrid } from "./arrange-grid";
import { ArrangePanel } from "./arrange-panel";
import { BoardControls } from "./board-controls";
import type { ReaderState } from "./reader-state";
import { TextTile, VisualTile } from "./tile-content";
import { TileFindings } from "./tile-findings";

const CommitField = later(() => import("../shared/commit-field").then((m) => m.CommitField), UNASKED);

/** A board while its author arranges it: its tiles on their grid, and beside them what can be put there. */
export function ArrangedBoard({ board, reader }: { board: Board; reader: ReaderState }) {
  const project = useProject((s) => s.document);
  const apply = useProject((s) => s.apply);
  const { state } = reader;
  const filters = useMemo(() => filtersOf(board.controls, state), [board.controls, state]);
  const inputs = useMemo(() => inputsOf(project.inputs, state), [project.inputs, state]);
  const visuals = useMemo(
    () =>
      board.tiles.flatMap((t) =>
        t.type === "visual" ? (project.visuals.find((v) => v.id === t.visual) ?? []) : [],
      ) as Visual[],
    [board.tiles, project.visuals],
  );
  const data = useVisualsData(visuals, filters, inputs);
  const [lit, setLit] = useState<string[]>([]);
  const placeOf = (tile: Tile) =>
    tile.type === "visual" ? visuals.findIndex((v) => v.id === tile.visual) : -1;
  const render = (tile: Tile) => {
    if (tile.type === "text") return <TextTile text={tile.text} />;
    const at = placeOf(tile);
    if (at < 0) return <TextTile text="The visual of this tile was removed." />;
    return (
      <Busy pending={data[at].pending} className="size-full">
        <VisualTile visual={visuals[at]} data={data[at].data} />
      </Busy>
    );
  };
  const beside = (tile: Tile) => {
    const at = placeOf(tile);
    return at < 0 ? null : <TileFindings visual={visuals[at]} data={data[at].data} />;
  };
  const nameOf = (tile: Tile) =>
    tile.type === "text" ? "text" : (project.visuals.find((v) => v.id === tile.visual)?.name ?? "visual");
  return (
    <div className="flex h-full min-h-0 flex-col narrow:h-auto narrow:min-h-full">
      <div className="board-head">
        <h1>
          <CommitField
            label="Board name"
            value={board.name}
            check={(t) => (t.trim() ? null : "A name is needed.")}
            onCommit={(t) => apply({ type: "rename board", id: board.id, name: t.trim().slice(0, 120) })}
          />
        </h1>
        <BoardControls reader={reader} />
      </div>
      <div className="flex min-h-0 flex-1 narrow:flex-col">
        <div
          className="min-h-0 min-w-0 flex-1 overflow-auto p-5 max-sm:p-3 narrow:overflow-visible"
          role="region"
          aria-label="Board"
          // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls is reachable by keyboard
          tabIndex={0}
        >
          {board.tiles.length === 0 ? (
            <div className="grid h-full place-items-center text-center">
              <p className="max-w-xs text-muted">Add visuals from the list at the right.</p>
            </div>
          ) : (
            <ArrangeGrid board={board} lit={lit} nameOf={nameOf} render={render} beside={beside} />
          )}
        </div>
        <ArrangePanel board={board} onLight={setLit} />
      </div>
    </div>
  );
}
