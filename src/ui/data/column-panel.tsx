"use client";
import { Eye, EyeOff } from "lucide-react";
import { useState } from "react";
import type { Reading } from "@/core/data/reading-schema";
import { breaksOf } from "@/core/project/breaks";
import type { TableInfo } from "@/core/project/schema";
import { changeColumn } from "@/core/project/table-edits";
import type { TableProfile, UnreadCells } from "@/server/compute/protocol";
import { api } from "../shared/api";
import { CommitField } from "../shared/commit-field";
import { Choose, Labelled } from "../shared/labelled";
import { toast } from "../shared/notice";
import { useProject, useProjectStore } from "../shared/project-context";
import { ColumnFacts, UnreadList } from "./column-facts";
import { READINGS, readingKey } from "./readings";

/** Why a column cannot have a name, or null. */
export function columnNameProblem(table: TableInfo, column: string, text: string): string | null {
  if (!text.trim()) return "A column needs a name.";
  if (text.trim().length > 120) return "At most 120 characters.";
  return [...table.columns, ...table.derived].some((c) => c.name !== column && c.name.toLowerCase() === text.trim().toLowerCase()) ? "Another column has this name." : null;
}

interface Props {
  table: TableInfo;
  column: TableInfo["columns"][number];
  profile: TableProfile["columns"][number] | null;
  onRenamed: (name: string) => void;
}

/** What the import guessed about a column, and what may be changed: its name, how it is read, and whether it is offered. */
export function ColumnPanel({ table, column, profile, onRenamed }: Props) {
  const apply = useProject((s) => s.apply);
  const store = useProjectStore();
  const [asked, setAsked] = useState<({ reading: Reading } & UnreadCells) | null>(null);
  const read = (reading: Reading) => {
    setAsked(null);
    const before = store.getState().document;
    apply(changeColumn(table.id, column.name, { reading }));
    const broken = breaksOf(before, store.getState().document);
    if (broken.length === 0) return;
    const names = `${broken.slice(0, 4).join(", ")}${broken.length > 4 ? ` and ${broken.length - 4} more` : ""}`;
    toast(`${column.name} is ${reading.type} now; ${names} ${broken.length === 1 ? "does" : "do"} not work with that.`, {
      duration: 12_000,
      action: { label: "Undo", onClick: () => store.getState().undo() },
    });
  };
  /** Cells that the new reading could not read are shown before anything changes. */
  const ask = async (key: string) => {
    const reading = READINGS.find((r) => r.value === key)?.reading;
    if (!reading) return;
    if (reading.type === "text") return read(reading);
    try {
      await store.getState().flush();
      const found = await api.unread(store.getState().id, table.name, column.name, reading);
      if (found.unread === 0) read(reading);
      else setAsked({ reading, ...found });
    } catch (error) {
      toast.error(error instanceof Error ? error.message : String(error));
    }
  };
  const label = (reading: Reading) => READINGS.find((r) => r.value === readingKey(reading))?.label ?? reading.type;
  return (
    <section aria-label={`Column ${column.name}`} className="flex flex-col gap-2 border-b border-rule p-4">
      <div className="flex items-center justify-between">
        <h2 className="section-title">Column</h2>
        <button
          type="button"
          className="icon-button size-6"
          aria-label={column.hidden ? `Offer ${column.name} again` : `Hide ${column.name}`}
          title={column.hidden ? "Hidden: offered nowhere, but formulas that name it go on" : "Hide: offer it nowhere; formulas that name it go on"}
          onClick={() => apply(changeColumn(table.id, column.name, { hidden: !column.hidden }))}
        >
          {column.hidden ? <EyeOff size={14} /> : <Eye size={14} />}
        </button>
      </div>
      <Labelled label="Name">
        {(id) => (
          <CommitField
            id={id}
            value={column.name}
            check={(text) => columnNameProblem(table, column.name, text)}
            onCommit={(text) => {
              apply(changeColumn(table.id, column.name, { name: text.trim() }));
              onRenamed(text.trim());
              toast(`Renamed to ${text.trim()}, in the formulas too.`);
            }}
          />
        )}
      </Labelled>
      <Labelled label="Read as">{(id) => <Choose id={id} value={readingKey(asked?.reading ?? column.reading)} options={READINGS} onChange={(key) => void ask(key)} />}</Labelled>
      {asked ? (
        <div role="alert" className="rounded-sm bg-amber-tint p-2 text-sm">
          {asked.unread} {asked.unread === 1 ? "cell does" : "cells do"} not read as {label(asked.reading)} and would count as empty.
          <UnreadList cells={asked.unreadCells} count={asked.unread} />
          <div className="mt-2 flex gap-1.5">
            <button type="button" className="button" onClick={() => read(asked.reading)}>
              Read it so
            </button>
            <button type="button" className="button" onClick={() => setAsked(null)}>
              Leave it
            </button>
          </div>
        </div>
      ) : (
        profile &&
        profile.unread > 0 && (
          <div role="alert" className="rounded-sm bg-signal-tint p-2 text-sm">
            {profile.unread} {profile.unread === 1 ? "cell does" : "cells do"} not read as {column.reading.type} and {profile.unread === 1 ? "counts" : "count"} as empty.
            <UnreadList cells={profile.unreadCells} count={profile.unread} />
          </div>
        )
      )}
      <ColumnFacts profile={profile} />
    </section>
  );
}
