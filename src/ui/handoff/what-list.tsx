"use client";
import { useMemo } from "react";
import { kindOf } from "@/core/kinds";
import { useFind } from "../shared/find-in-list";
import { ItemList } from "../shared/item-list";
import { useProject } from "../shared/project-context";
import { useTheme } from "../shared/theme";
import type { Pictured } from "../shared/visual-data";
import { VisualThumbnail } from "../shared/visual-thumbnail";
import type { What } from "./what";

const ROW = "flex w-full min-w-0 items-center gap-2 border-l-[3px] px-3 py-1.5 text-left";
const look = (isOn: boolean) => (isOn ? "border-verdigris bg-tint" : "border-transparent hover:bg-well");

/** What can be taken out: a board, a visual, or several of these. */
export function WhatList({
  what,
  all,
  choose,
}: {
  what: What;
  all: Pictured[];
  choose: (what: { board: string } | { visuals: string[] }) => void;
}) {
  const { visuals, boards } = useProject((s) => s.document);
  const theme = useTheme((s) => s.theme);
  const chosen: string[] = what.visuals.map((v) => v.id);
  const entries = useMemo(() => [...boards, ...visuals], [boards, visuals]);
  const find = useFind("Find a board or a visual", entries);
  const toggle = (id: string) => {
    const next = chosen.includes(id) ? chosen.filter((c) => c !== id) : [...chosen, id];
    if (next.length > 0) choose({ visuals: next });
  };
  return (
    <div className="areas-list flex min-h-0 flex-col border-r border-rule">
      {find.field && <div className="border-b border-rule p-3">{find.field}</div>}
      <ItemList label="What is taken out" className="min-h-0 flex-1 overflow-auto py-3">
        {boards.length > 0 && <h2 className="px-4 pb-1 text-xs text-muted">Boards</h2>}
        {boards
          .filter((b) => find.fits(b.id))
          .map((b) => (
            <button
              key={b.id}
              type="button"
              data-item
              title={b.name}
              aria-current={b.id === what.board?.id}
              onClick={() => choose({ board: b.id })}
              className={`${ROW} ${look(b.id === what.board?.id)}`}
            >
              <span className="truncate font-semibold">{b.name}</span>
            </button>
          ))}
        <h2 className={`px-4 pb-1 text-xs text-muted ${boards.length > 0 ? "pt-4" : ""}`}>Visuals</h2>
        {visuals.map(
          (v, i) =>
            find.fits(v.id) && (
              <div
                key={v.id}
                className={`group flex items-center pr-3 ${look(chosen.includes(v.id))} border-l-0`}
              >
                <button
                  type="button"
                  data-item
                  title={v.name}
                  aria-current={chosen.includes(v.id)}
                  onClick={(event) =>
                    event.ctrlKey || event.metaKey || event.shiftKey
                      ? toggle(v.id)
                      : choose({ visuals: [v.id] })
                  }
                  className={`${ROW} ${look(chosen.includes(v.id))}`}
                >
                  <span className="w-14 shrink-0 rounded-sm bg-sheet max-lg:hidden">
                    <VisualThumbnail visual={v} data={all[i].data} theme={theme} />
                  </span>
                  <span className="min-w-0">
                    <span className="block truncate font-semibold">{v.name}</span>
                    <span className="block truncate text-xs text-muted">{kindOf(v.kind).label}</span>
                  </span>
                </button>
                <label
                  title="Take it out with the others"
                  className="grid size-7 shrink-0 cursor-pointer place-items-center"
                >
                  <input
                    type="checkbox"
                    aria-label={`${v.name} too`}
                    checked={chosen.includes(v.id)}
                    onChange={() => toggle(v.id)}
                    className="size-4 accent-verdigris opacity-40 group-hover:opacity-100 checked:opacity-100 focus-visible:opacity-100"
                  />
                </label>
              </div>
            ),
        )}
        {visuals.length === 0 && <p className="px-4 text-sm text-muted">There is no visual yet.</p>}
      </ItemList>
    </div>
  );
}
