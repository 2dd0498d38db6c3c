"use client";
import { Columns3 } from "lucide-react";
import { FindOne } from "../shared/find-one";
import type { ShownColumn } from "./shown-columns";

/** Finds a column of a wide table by a part of its name. */
export function FindColumn({
  columns,
  chosen,
  onChoose,
}: {
  columns: ShownColumn[];
  chosen: string | null;
  onChoose: (column: string) => void;
}) {
  return (
    <FindOne
      label="Find a column"
      list="Columns"
      align="end"
      button={{ className: "button" }}
      chosen={chosen ?? undefined}
      options={columns.map((c) => ({
        key: c.name,
        label: c.name,
        hint: c.type,
        pick: () => onChoose(c.name),
      }))}
    >
      <Columns3 size={13} /> Find a column
    </FindOne>
  );
}
