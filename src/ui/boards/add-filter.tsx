"use client";
import { Plus } from "lucide-react";
import { useMemo, useState } from "react";
import { newInputControl } from "@/core/project/defaults";
import type { Board, Control } from "@/core/project/schema";
import { filterOffered, offeredFilters } from "@/core/view/board-filters";
import { newId } from "../shared/ids";
import { matching } from "../shared/matching";
import { PopoverButton } from "../shared/popover-button";
import { useProject } from "../shared/project-context";

/** A control that a board can have. */
interface Offered {
  key: string;
  text: string;
  /** What it stands under; null for a column of a table that is not on the board: it is found by its name. */
  group: "Columns" | "Columns on this board" | "Inputs" | null;
  make: () => Control;
}

/** Puts a filter or an input above a board: the columns of its visuals' tables come first. */
export function AddFilter({ board }: { board: Board }) {
  const project = useProject((s) => s.document);
  const apply = useProject((s) => s.apply);
  const offered = useMemo(() => {
    const filters = offeredFilters(project, board);
    const isEmpty = !filters.some((f) => f.isNear);
    return [
      ...filters.map(
        (filter): Offered => ({
          key: `${filter.table}\n${filter.column}`,
          text: filter.text,
          group: filter.isNear ? "Columns on this board" : isEmpty ? "Columns" : null,
          make: () => filterOffered(filter, newId()),
        }),
      ),
      ...project.inputs
        .filter(({ id }) => !board.controls.some((c) => c.type === "input" && c.input === id))
        .map(
          ({ id, label }): Offered => ({
            key: id,
            text: label,
            group: "Inputs",
            make: () => newInputControl({ id: newId(), input: id }),
          }),
        ),
    ];
  }, [project, board]);
  if (offered.length === 0) return null;
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
        <OfferedControls
          offered={offered}
          onChoose={({ make }) => {
            close();
            apply({ type: "add control", board: board.id, control: make() });
          }}
        />
      )}
    </PopoverButton>
  );
}

/** With more than this there is a field to find one by its name. */
const FEW = 8;
const OTHERS = "Columns of other tables";

function OfferedControls({
  offered,
  onChoose,
}: {
  offered: Offered[];
  onChoose: (offered: Offered) => void;
}) {
  const [find, setFind] = useState("");
  const shown = useMemo(
    () => matching(offered, find, (o) => o.text).filter((o) => find !== "" || o.group !== null),
    [offered, find],
  );
  const groups = [...new Set(shown.map((o) => o.group ?? OTHERS))];
  const later = find === "" ? offered.filter((o) => o.group === null).length : 0;
  return (
    <>
      {offered.length > FEW && (
        <input
          type="search"
          aria-label="Find a column or an input"
          placeholder="Find a column or an input"
          value={find}
          maxLength={200}
          onChange={(event) => setFind(event.target.value)}
          className="field mb-1.5"
        />
      )}
      {shown.length === 0 && (
        <p role="status" className="px-2 py-1 text-sm text-muted">
          Nothing has that name.
        </p>
      )}
      {groups.map((group) => (
        <section key={group} aria-label={group}>
          <p className="px-2 py-1 text-xs text-muted">{group}</p>
          {shown
            .filter((o) => (o.group ?? OTHERS) === group)
            .map((one) => (
              <button
                key={one.key}
                type="button"
                title={one.text}
                className="block min-h-7 w-full shrink-0 truncate rounded-sm px-2 py-1 text-left hover:bg-tint"
                onClick={() => onChoose(one)}
              >
                {one.text}
              </button>
            ))}
        </section>
      ))}
      {later > 0 && (
        <p className="px-2 py-1.5 text-sm text-muted">
          {later} {later === 1 ? "column" : "columns"} of other tables: type a part of the name.
        </p>
      )}
    </>
  );
}
