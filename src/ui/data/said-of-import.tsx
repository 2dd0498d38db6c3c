"use client";
import { doubtText } from "@/core/data/doubt-text";
import { readingKey, readingLabel } from "@/core/data/reading-label";
import type { TableInfo } from "@/core/project/schema";
import type { Said } from "../shared/import-store";
import { useProject } from "../shared/project-context";

const shownValue = (value: string | null) => (value === null ? "nothing" : value);

/**
 * What an import said of a table: what was mended, and for each doubt the other reading with its effect,
 * which one click takes.
 */
export function SaidOfImport({ table, said }: { table: TableInfo; said: Said }) {
  const apply = useProject((s) => s.apply);
  return (
    <ul className="flex flex-col gap-1.5">
      {said.notes.map((n) => (
        <li key={n}>{n}</li>
      ))}
      {said.doubts.map((doubt) => {
        const column = table.columns.find((c) => c.name === doubt.column);
        if (!column) return null;
        const key = `${doubt.column} ${doubt.why}`;
        // Once the column is read in another way, what was said of the first reading holds no more.
        if (readingKey(column.reading) !== readingKey(doubt.reading))
          return <li key={key}>{`“${doubt.column}” is read as ${readingLabel(column.reading)} now.`}</li>;
        return (
          <li key={key}>
            {doubtText(doubt.column, doubt.reading, doubt)}{" "}
            {doubt.cells.length > 0 && (
              <span className="text-muted">
                {doubt.cells
                  .map((c) => `“${c.text}” is ${shownValue(c.as)} now, ${shownValue(c.other)} then`)
                  .join("; ")}
                .{" "}
              </span>
            )}
            <button
              type="button"
              className="underline"
              onClick={() =>
                apply({
                  type: "change column",
                  table: table.id,
                  column: doubt.column,
                  change: { reading: doubt.other },
                })
              }
            >
              Read “{doubt.column}” the other way
            </button>
          </li>
        );
      })}
    </ul>
  );
}
