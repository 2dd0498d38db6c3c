"use client";
import type { Touched } from "@/core/engine/cells/plan-cells";
import { placesOf } from "@/core/formula/meeting";
import { homeTableOfVisual } from "@/core/project/home-table";
import { scopeOf } from "@/core/project/names";
import { offeredColumns } from "@/core/project/offered";
import { useProject } from "../shared/project-context";
import { Segments } from "../shared/segments";
import type { Travelling } from "./snapshot-about";
import { ThemeChoice } from "./theme-choice";
import type { What } from "./what";

const TRAVELS = [
  { id: "answers", name: "Answers only" },
  { id: "rows", name: "With its rows" },
] as const;

const isSame = (a: Touched, b: Touched) => a.column === b.column && a.by === b.by;

/** The columns by which a page can filter visuals, dates by year and month too. */
function useFilterColumns(what: What): Touched[] {
  const project = useProject((s) => s.document);
  const tables = what.visuals.map((v) => homeTableOfVisual(v, project));
  const scope = scopeOf(project);
  const all = tables.flatMap((table) =>
    table === null
      ? []
      : offeredColumns(project, table).flatMap((c): Touched[] => {
          const [place] = placesOf(scope, table, c.name);
          const column = place ? `${place.table}.${place.column}` : `${c.table}.${c.column}`;
          const isTime = c.type === "date" || c.type === "timestamp";
          return isTime ? [{ column, by: "year" }, { column, by: "month" }, { column }] : [{ column }];
        }),
  );
  return all.filter((one, i) => all.findIndex((other) => isSame(one, other)) === i);
}

/** What may travel: answers alone or rows, by what a page may filter, and in which theme it stands. */
export function TravelChoice({
  what,
  travelling,
  onChange,
}: {
  what: What;
  travelling: Travelling;
  onChange: (travelling: Travelling) => void;
}) {
  const columns = useFilterColumns(what);
  const { travel, theme, by } = travelling;
  const toggle = (one: Touched) =>
    onChange({
      ...travelling,
      by: by.some((b) => isSame(b, one)) ? by.filter((b) => !isSame(b, one)) : [...by, one],
    });
  return (
    <>
      <ThemeChoice value={theme} auto onChange={(t) => onChange({ ...travelling, theme: t })} />
      <Segments
        wide
        label="What travels of the data"
        value={travel}
        options={TRAVELS}
        onChange={(t) => onChange({ ...travelling, travel: t })}
      />
      {what.board === null && travel === "answers" && columns.length > 0 && (
        <details className="text-sm">
          <summary className="cursor-pointer">
            {by.length === 0
              ? "Not filtered by the page"
              : `Filtered by ${by.length} of ${columns.length} columns`}
          </summary>
          <fieldset className="mt-1 max-h-40 overflow-auto rounded-md border border-rule bg-sheet p-2">
            <legend className="sr-only">The page can filter by</legend>
            {columns.map((one) => (
              <label key={JSON.stringify(one)} className="flex min-h-6 items-center gap-2">
                <input
                  type="checkbox"
                  className="size-4 accent-verdigris"
                  checked={by.some((b) => isSame(b, one))}
                  onChange={() => toggle(one)}
                />
                <span className="min-w-0 truncate">
                  {one.column}
                  {one.by ? ` by ${one.by}` : ""}
                </span>
              </label>
            ))}
          </fieldset>
        </details>
      )}
    </>
  );
}
