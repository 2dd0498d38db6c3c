"use client";
import { Plus } from "lucide-react";
import type { Board } from "@/core/project/schema";
import { filterOffered, type OfferedFilter, offeredFilters } from "@/core/view/board-filters";
import { useFind } from "../shared/find-in-list";
import { newId } from "../shared/ids";
import { PopoverButton } from "../shared/popover-button";
import { useProject } from "../shared/project-context";

/** Puts a filter above a board: the columns of its visuals' tables come first. */
export function AddFilter({ board }: { board: Board }) {
  const project = useProject((s) => s.document);
  const apply = useProject((s) => s.apply);
  const offered = offeredFilters(project, board);
  if (offered.length === 0) return null;
  const add = (offer: OfferedFilter) =>
    apply({ type: "add control", board: board.id, control: filterOffered(offer, newId()) });
  return (
    <PopoverButton
      label="Filter the board by"
      text={
        <>
          <Plus size={13} /> Add a filter
        </>
      }
      className="flex h-7 shrink-0 items-center gap-1 self-end rounded-sm border border-dashed border-muted px-2.5 text-sm whitespace-nowrap text-muted hover:text-ink"
    >
      {(close) => (
        <OfferedFilters
          offered={offered}
          onChoose={(filter) => {
            close();
            add(filter);
          }}
        />
      )}
    </PopoverButton>
  );
}

function OfferedFilters({
  offered,
  onChoose,
}: {
  offered: OfferedFilter[];
  onChoose: (filter: OfferedFilter) => void;
}) {
  const find = useFind(
    "Find a column",
    offered.map(({ text }) => ({ id: text, name: text })),
  );
  return (
    <>
      {find.field}
      <div className={find.listLook}>
        {offered
          .filter(({ text }) => find.fits(text))
          .map((filter) => (
            <button
              key={filter.text}
              type="button"
              className="block w-full shrink-0 truncate rounded-sm px-2 py-1 text-left hover:bg-tint"
              onClick={() => onChoose(filter)}
            >
              {filter.text}
            </button>
          ))}
      </div>
    </>
  );
}
