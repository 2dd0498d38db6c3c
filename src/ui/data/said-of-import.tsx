"use client";
import { doubtText } from "@/core/data/doubt-text";
import { withKept, withoutKept } from "@/core/data/kept-words";
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
        if (doubt.why === "words for nothing")
          return <WordForNothing key={`${key} ${doubt.cells[0]?.text}`} table={table} doubt={doubt} />;
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

/** A word that counts as empty, with its number of cells: one click keeps it as a value, and takes that back. */
function WordForNothing({ table, doubt }: { table: TableInfo; doubt: Said["doubts"][number] }) {
  const apply = useProject((s) => s.apply);
  const reading = table.columns.find((c) => c.name === doubt.column)?.reading;
  const [word] = doubt.other.kept ?? [];
  if (reading?.type !== "text" || word === undefined) return null;
  const isKept = reading.kept?.includes(word) ?? false;
  return (
    <li>
      {isKept
        ? `“${doubt.column}”: “${doubt.cells[0].text}” is a value in ${(doubt.count ?? 0).toLocaleString("en")} cells.`
        : doubtText(doubt.column, reading, doubt)}{" "}
      <button
        type="button"
        className="underline"
        onClick={() =>
          apply({
            type: "change column",
            table: table.id,
            column: doubt.column,
            change: { reading: isKept ? withoutKept(reading, word) : withKept(reading, word) },
          })
        }
      >
        {isKept ? `Count “${doubt.cells[0].text}” as empty` : `Keep “${doubt.cells[0].text}” as a value`}
      </button>
    </li>
  );
}
