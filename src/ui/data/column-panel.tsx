"use client";
import { toast } from "sonner";
import { changeColumn } from "@/core/project/edits";
import type { TableInfo } from "@/core/project/schema";
import type { TableProfile } from "@/server/compute/protocol";
import { CommitField } from "../shared/commit-field";
import { Choose, Labelled } from "../shared/labelled";
import { useProject } from "../shared/project-context";
import { READINGS, readingKey } from "./readings";

const shown = (value: unknown) => (value === null ? "—" : String(value));

/** What the import guessed about a column, and what may be changed: its name and how it is read. */
export function ColumnPanel({
  table,
  column,
  profile,
  onRenamed,
}: {
  table: TableInfo;
  column: TableInfo["columns"][number];
  profile: TableProfile["columns"][number] | null;
  onRenamed: (name: string) => void;
}) {
  const apply = useProject((s) => s.apply);
  const read = (key: string) => {
    const reading = READINGS.find((r) => r.value === key)?.reading;
    if (reading) apply(changeColumn(table.id, column.name, { reading }));
  };
  return (
    <section aria-label={`Column ${column.name}`} className="flex flex-col gap-2 border-b border-rule p-4">
      <h2 className="section-title">Column</h2>
      <Labelled label="Name">
        {(id) => (
          <CommitField
            id={id}
            value={column.name}
            check={(text) =>
              !text.trim()
                ? "A column needs a name."
                : table.columns.some((c) => c.name !== column.name && c.name.toLowerCase() === text.trim().toLowerCase())
                  ? "Another column has this name."
                  : null
            }
            onCommit={(text) => {
              apply(changeColumn(table.id, column.name, { name: text.trim() }));
              onRenamed(text.trim());
              toast(`Renamed to ${text.trim()}, in the formulas too.`);
            }}
          />
        )}
      </Labelled>
      <Labelled label="Read as">{(id) => <Choose id={id} value={readingKey(column.reading)} options={READINGS} onChange={read} />}</Labelled>
      {profile && profile.unread > 0 && profile.firstUnread && (
        <p role="alert" className="rounded-sm bg-signal-tint p-2 text-sm">
          {profile.unread} {profile.unread === 1 ? "cell does" : "cells do"} not read as {column.reading.type} and {profile.unread === 1 ? "counts" : "count"} as empty. The first
          is “{profile.firstUnread.text}” in row {profile.firstUnread.row}.
        </p>
      )}
      <dl className="grid grid-cols-[96px_1fr] gap-x-2 gap-y-1 text-sm">
        {(
          [
            ["Smallest", profile && shown(profile.min)],
            ["Largest", profile && shown(profile.max)],
            ["Distinct", profile?.distinct],
            ["Empty", profile?.nulls],
          ] as const
        ).map(([label, value]) => (
          <div key={label} className="contents">
            <dt className="text-muted">{label}</dt>
            <dd className="truncate text-right font-mono">{value ?? "…"}</dd>
          </div>
        ))}
      </dl>
      {profile && profile.bars.length > 0 && profile.type === "text" && (
        <ul aria-label="Most frequent values" className="mt-1 flex flex-col gap-0.5 text-sm">
          {profile.bars.map((bar) => (
            <li key={bar.label} className="relative flex justify-between gap-2 px-1.5 py-0.5">
              <span className="absolute inset-y-0 left-0 rounded-sm bg-tint" style={{ width: `${(bar.count / profile.bars[0].count) * 100}%` }} />
              <span className="relative truncate">{bar.label}</span>
              <span className="relative font-mono text-muted">{bar.count}</span>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
