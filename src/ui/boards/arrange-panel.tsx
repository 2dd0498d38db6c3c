"use client";
import { Plus } from "lucide-react";
import { useState } from "react";
import { kindOf } from "@/core/kinds";
import type { Board } from "@/core/project/schema";
import { filterOffered, offeredFilters } from "@/core/view/board-filters";
import { Choose } from "../shared/choose";
import { CommitField } from "../shared/commit-field";
import { newId } from "../shared/ids";
import { Labelled } from "../shared/labelled";
import { useProject } from "../shared/project-context";
import { useTheme } from "../shared/theme";
import { useVisualsData } from "../shared/visual-data";
import { VisualThumbnail } from "../shared/visual-thumbnail";
import { ControlRow } from "./control-row";

/** What can be put on a board: visuals, texts, filters and inputs; and the controls it has. */
export function ArrangePanel({ board, onLight }: { board: Board; onLight: (tiles: string[]) => void }) {
  const project = useProject((s) => s.document);
  const { visuals, inputs } = project;
  const apply = useProject((s) => s.apply);
  const theme = useTheme((s) => s.theme);
  const data = useVisualsData(visuals);
  const [column, setColumn] = useState("");
  const phone = board.tiles.toSorted((a, b) => a.y - b.y || a.x - b.x);
  const offered = offeredFilters(project, board);
  const columns = offered.map((f, i) => ({ value: String(i), label: f.text }));
  const addFilter = () => {
    apply({ type: "add control", board: board.id, control: filterOffered(offered[Number(column)], newId()) });
    setColumn("");
  };
  const freeInputs = inputs.filter(
    (i) => !board.controls.some((c) => c.type === "input" && c.input === i.id),
  );
  return (
    <aside
      aria-label="Put on the board"
      className="flex min-h-0 w-64 shrink-0 flex-col gap-4 overflow-auto border-l border-rule bg-panel p-4 narrow:w-auto narrow:overflow-visible narrow:border-t narrow:border-l-0"
    >
      <section className="flex flex-col gap-1">
        <h2 className="section-title pb-1">Visuals</h2>
        {visuals.length === 0 && (
          <p className="text-sm text-muted">There is no visual yet. Draw one on the Visuals step.</p>
        )}
        {visuals.map((v, i) => (
          <button
            key={v.id}
            type="button"
            aria-label={`Add ${v.name}`}
            title={v.name}
            className="flex items-center justify-between gap-2 rounded-sm border border-rule bg-sheet py-1 pr-2.5 pl-1 text-left text-sm hover:border-verdigris"
            onClick={() =>
              apply({
                type: "add tile",
                board: board.id,
                tile: { id: newId(), type: "visual", visual: v.id },
                size: kindOf(v.kind).tileSize(v),
              })
            }
          >
            <span className="w-14 shrink-0">
              <VisualThumbnail visual={v} data={data[i].data} theme={theme} />
            </span>
            <span className="min-w-0 flex-1">
              <span className="block truncate">{v.name}</span>
              <span className="block truncate text-xs text-muted">{kindOf(v.kind).label}</span>
            </span>
            <Plus size={13} className="shrink-0 text-muted" />
          </button>
        ))}
        <button
          type="button"
          className="flex items-center justify-between gap-2 rounded-sm border border-rule bg-sheet px-2.5 py-1.5 text-left text-sm hover:border-verdigris"
          onClick={() =>
            apply({
              type: "add tile",
              board: board.id,
              tile: { id: newId(), type: "text", text: "Write here" },
              size: { width: 4, height: 2 },
            })
          }
        >
          A text <Plus size={13} className="text-muted" />
        </button>
      </section>
      <section className="flex flex-col gap-1.5">
        <h2 className="section-title pb-1">Controls</h2>
        {board.controls.map((control, at) => (
          <ControlRow key={control.id} board={board} control={control} at={at} onLight={onLight} />
        ))}
        <Labelled label="Filter by" stacked>
          {(id) => (
            <Choose
              id={id}
              value={column}
              options={[{ value: "", label: "Choose a column" }, ...columns]}
              onChange={setColumn}
            />
          )}
        </Labelled>
        <button type="button" className="button self-start" disabled={!column} onClick={addFilter}>
          <Plus size={13} /> Add the filter
        </button>
        {freeInputs.map((i) => (
          <button
            key={i.id}
            type="button"
            className="button justify-between"
            onClick={() =>
              apply({
                type: "add control",
                board: board.id,
                control: { id: newId(), type: "input", input: i.id, as: "automatic" },
              })
            }
          >
            {i.type === "number" && i.choices.length === 0 && !i.choicesFrom ? "Stepper for" : "Choice of"}{" "}
            {i.label} <Plus size={13} />
          </button>
        ))}
      </section>
      {board.tiles.some((t) => t.type === "text") && (
        <section className="flex flex-col gap-1.5">
          <h2 className="section-title pb-1">Texts</h2>
          {board.tiles.map(
            (tile) =>
              tile.type === "text" && (
                <CommitField
                  key={tile.id}
                  label="Text"
                  multiline
                  value={tile.text}
                  onCommit={(text) =>
                    apply({ type: "write tile", board: board.id, tile: tile.id, text: text.slice(0, 2000) })
                  }
                />
              ),
          )}
        </section>
      )}
      {phone.length > 0 && (
        <section aria-label="Order on a phone">
          <h2 className="section-title pb-1">Order on a phone</h2>
          <ol className="list-decimal pl-5 text-sm">
            {phone.map((tile) => (
              <li key={tile.id} className="truncate">
                {tile.type === "text"
                  ? `Text: ${tile.text || "empty"}`
                  : (visuals.find((v) => v.id === tile.visual)?.name ?? "a visual that was removed")}
              </li>
            ))}
          </ol>
          <p className="mt-1 text-xs text-muted">From the top row to the bottom one, each from the left.</p>
        </section>
      )}
      <p className="text-xs text-muted">
        Drag tiles, or focus one and use the arrow keys; with Shift they resize it. What the controls are set
        to is kept by “Begin with this”.
      </p>
    </aside>
  );
}
