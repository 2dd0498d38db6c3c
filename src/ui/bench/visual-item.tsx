"use client";
import { type MouseEvent, memo } from "react";
import { kindOf } from "@/core/kinds";
import type { VisualData } from "@/core/rows/visual-data";
import { useSettled } from "../shared/settled";
import type { ThemeName } from "../shared/theme";
import { VisualThumbnail } from "../shared/visual-thumbnail";
import { useVisual } from "./sentences";

interface Props {
  id: string;
  data: VisualData;
  /** How many findings of its review are open. */
  open: number;
  theme: ThemeName;
  chosen: boolean;
  onOpen: (id: string) => void;
  onMenu: (id: string, event: MouseEvent<HTMLElement>) => void;
}

/** A visual in the list; drawn again only when it changes itself. */
export const VisualItem = memo(
  function VisualItem({ id, data, open, theme, chosen, onOpen, onMenu }: Props) {
    const visual = useVisual(id);
    // While dials turn, the stage goes first.
    const shown = useSettled(visual);
    return (
      <button
        type="button"
        data-item
        title={visual.name}
        aria-current={chosen}
        onClick={() => onOpen(visual.id)}
        onContextMenu={(event) => onMenu(visual.id, event)}
        className={`shrink-0 rounded-md border bg-sheet p-1.5 text-left ${chosen ? "border-verdigris outline-2 outline-verdigris" : "border-rule hover:border-muted"}`}
      >
        <span className="short:hidden">
          <VisualThumbnail visual={shown} data={data} theme={theme} />
        </span>
        <span className="mt-1 flex short:mt-0 items-center gap-1.5 text-xs font-medium">
          <span className="min-w-0">
            <span className="block truncate">{visual.name}</span>
            <span className="block truncate font-normal text-muted short:hidden">
              {kindOf(visual.kind).label}
            </span>
          </span>
          {open > 0 && (
            <span
              role="img"
              aria-label={open === 1 ? "1 finding" : `${open} findings`}
              title={open === 1 ? "The review has found something" : `The review has found ${open} things`}
              className="ml-auto size-2 shrink-0 rounded-full bg-signal"
            />
          )}
        </span>
      </button>
    );
  },
  (a, b) =>
    a.id === b.id && a.open === b.open && a.data === b.data && a.theme === b.theme && a.chosen === b.chosen,
);
