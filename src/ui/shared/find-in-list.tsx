"use client";
import { type ReactNode, useMemo, useState } from "react";
import { matching } from "./matching";

/** With more entries than this a list can be searched. */
const FEW = 20;

/** A field that finds entries of a long list by a part of their names, and whether an entry is among them. */
export function useFind(
  label: string,
  entries: readonly { id: string; name: string }[],
): { field: ReactNode; fits: (id: string) => boolean } {
  const [typed, setTyped] = useState("");
  const isLong = entries.length > FEW;
  const find = isLong ? typed : "";
  const found = useMemo(
    () => new Set(matching([...entries], find, (e) => e.name).map((e) => e.id)),
    [entries, find],
  );
  const field = isLong && (
    <>
      <input
        type="search"
        aria-label={label}
        placeholder={label}
        value={typed}
        maxLength={200}
        onChange={(event) => setTyped(event.target.value)}
        className="field"
      />
      {found.size === 0 && (
        <p role="status" className="mt-2 text-sm text-muted">
          Nothing has that name.
        </p>
      )}
    </>
  );
  return { field, fits: (id) => found.has(id) };
}
