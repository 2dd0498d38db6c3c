"use client";
import type { ReactNode } from "react";
import { doubtText } from "@/core/data/doubt-text";
import { withKept, withoutKept } from "@/core/data/kept-words";
import { readingKey, readingLabel } from "@/core/data/reading-label";
import type { Reading } from "@/core/data/reading-schema";
import type { TableInfo } from "@/core/project/schema";
import type { Said } from "../shared/import-store";
import { useProject } from "../shared/project-context";

const shownValue = (value: string | null) => (value === null ? "nothing" : value);

/**
 * What an import said of a table: what was mended, and for each doubt the other reading with its effect,
 * which one click takes.
 */
export function SaidOfImport({ table, said }: { table: TableInfo; said: Said }) {
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
            <ReadAs table={table} column={doubt.column} reading={doubt.other}>
              Read “{doubt.column}” the other way
            </ReadAs>
          </li>
        );
      })}
    </ul>
  );
}

/** The button that reads a column otherwise. */
function ReadAs({
  table,
  column,
  reading,
  children,
}: {
  table: TableInfo;
  column: string;
  reading: Reading;
  children: ReactNode;
}) {
  const apply = useProject((s) => s.apply);
  const change = { type: "change column", table: table.id, column, change: { reading } } as const;
  return (
    <button type="button" className="underline" onClick={() => apply(change)}>
      {children}
    </button>
  );
}

/** A word that counts as empty, with its number of cells: one click keeps it as a value, and takes that back. */
function WordForNothing({ table, doubt }: { table: TableInfo; doubt: Said["doubts"][number] }) {
  const reading = table.columns.find((c) => c.name === doubt.column)?.reading;
  const [word] = doubt.other.kept ?? [];
  if (reading?.type !== "text" || word === undefined) return null;
  const isKept = reading.kept?.includes(word) ?? false;
  return (
    <li>
      {isKept
        ? `“${doubt.column}”: “${doubt.cells[0].text}” is a value in ${(doubt.count ?? 0).toLocaleString("en")} cells.`
        : doubtText(doubt.column, reading, doubt)}{" "}
      <ReadAs
        table={table}
        column={doubt.column}
        reading={isKept ? withoutKept(reading, word) : withKept(reading, word)}
      >
        {isKept ? `Count “${doubt.cells[0].text}” as empty` : `Keep “${doubt.cells[0].text}” as a value`}
      </ReadAs>
    </li>
  );
}
