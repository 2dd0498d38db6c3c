"use client";
import { type ReactNode, useMemo, useState } from "react";
import { matching } from "./matching";

/** With more entries than this a list can be searched. */
const FEW = 20;
/** Lower in a popover, which is low itself. */
const LONG = "flex max-h-96 flex-col gap-1.5 overflow-auto [[popover]_&]:max-h-56";

/**
 * A field that finds entries of a long list by a part of their names, whether an entry is among them, and how
 * their list stands where others stand below it: never so long that these are out of sight.
 */
export function useFind(
  label: string,
  entries: readonly { id: string; name: string }[],
): { field: ReactNode; fits: (id: string) => boolean; listLook: string } {
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
  return { field, fits: (id) => found.has(id), listLook: isLong ? LONG : "contents" };
}
