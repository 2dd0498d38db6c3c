"use client";
import { Eye, EyeOff } from "lucide-react";
import { useState } from "react";
import { patternProblem } from "@/core/base/date-pattern";
import { listed } from "@/core/base/listed";
import { sameName } from "@/core/base/names";
import { keptIn, keptProblem, withWords } from "@/core/data/kept-words";
import { readingKey, readingLabel } from "@/core/data/reading-label";
import type { Reading } from "@/core/data/reading-schema";
import { breaksOf } from "@/core/project/breaks";
import { LONGEST } from "@/core/project/most";
import type { TableInfo } from "@/core/project/schema";
import type { TableProfile, UnreadCells } from "@/server/compute/protocol";
import { READINGS } from "../../core/data/readings";
import { api } from "../shared/api";
import { Choose } from "../shared/choose";
import { CommitField } from "../shared/commit-field";
import { Labelled } from "../shared/labelled";
import { toast } from "../shared/notice";
import { useProject, useProjectStore } from "../shared/project-context";
import { useTellEdit } from "../shared/tell-edit";
import { tooLong } from "../shared/too-long";
import { ColumnFacts, UnreadList } from "./column-facts";

/** Why a column cannot have a name, or null. */
export function columnNameProblem(table: TableInfo, column: string, text: string): string | null {
  if (!text.trim()) return "A column needs a name.";
  const long = tooLong(text.trim(), LONGEST.name);
  if (long) return long;
  return [...table.columns, ...table.derived].some((c) => c.name !== column && sameName(c.name, text.trim()))
    ? "Another column has this name."
    : null;
}

const OWN_PATTERN = "own pattern";

/** A pattern of one's own for dates that no guess reads, in the date letters of Unicode. */
function PatternEntry({
  pattern,
  onPattern,
  onUse,
}: {
  pattern: string;
  onPattern: (text: string) => void;
  onUse: (reading: Reading) => void;
}) {
  const problem = pattern.trim() === "" ? null : patternProblem(pattern);
  const use = () => {
    if (pattern.trim() !== "" && problem === null)
      onUse({ type: /[Hhkms]/.test(pattern.replace(/'[^']*'/g, "")) ? "timestamp" : "date", pattern });
  };
  return (
    <Labelled label="Pattern">
      {(id) => (
        <div className="flex flex-col gap-1">
          <div className="flex gap-1.5">
            <input
              id={id}
              className="field flex-1 font-mono"
              placeholder="dd.MM.yyyy HH:mm"
              maxLength={60}
              value={pattern}
              aria-invalid={problem !== null}
              aria-describedby={`${id}-help`}
              onChange={(e) => onPattern(e.target.value)}
              onKeyDown={(e) => e.key === "Enter" && use()}
            />
            <button
              type="button"
              className="button"
              disabled={pattern.trim() === "" || problem !== null}
              onClick={use}
            >
              Use it
            </button>
          </div>
          <p
            id={`${id}-help`}
            role={problem ? "alert" : undefined}
            className={`text-sm ${problem ? "text-signal" : "text-muted"}`}
          >
            {problem ?? "yyyy year, MM month, MMM its name, dd day, HH hour, mm minute, ss second"}
          </p>
        </div>
      )}
    </Labelled>
  );
}

interface Props {
  table: TableInfo;
  column: TableInfo["columns"][number];
  profile: TableProfile["columns"][number] | null;
  onRenamed: (name: string) => void;
}

/**
 * What the import guessed about a column, and what may be changed: its name, how it is read, and whether it
 * is offered.
 */
export function ColumnPanel({ table, column, profile, onRenamed }: Props) {
  const apply = useProject((s) => s.apply);
  const store = useProjectStore();
  const tellEdit = useTellEdit();
  const [pattern, setPattern] = useState<string | null>(null);
  const [asked, setAsked] = useState<({ reading: Reading } & UnreadCells) | null>(null);
  const read = (reading: Reading) => {
    setAsked(null);
    const before = store.getState().document;
    apply({ type: "change column", table: table.id, column: column.name, change: { reading } });
    const broken = breaksOf(before, store.getState().document);
    if (broken.length === 0) return;
    const names = listed(broken);
    tellEdit(
      `${column.name} is ${reading.type} now; ${names} ${broken.length === 1 ? "does" : "do"} not work with that.`,
      12_000,
    );
  };
  /** Cells that the new reading could not read are shown before anything changes. */
  const ask = async (key: string) => {
    if (key === OWN_PATTERN) return setPattern("");
    const reading = READINGS.find((r) => r.value === key)?.reading;
    if (reading) await tryReading(reading);
  };
  const tryReading = async (reading: Reading) => {
    setPattern(null);
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
  const now = asked?.reading ?? column.reading;
  const options = [
    ...READINGS,
    ...(READINGS.some((r) => r.value === readingKey(now))
      ? []
      : [{ value: readingKey(now), label: readingLabel(now) }]),
    { value: OWN_PATTERN, label: "date by a pattern of my own …" },
  ];
  return (
    <section aria-label={`Column ${column.name}`} className="flex flex-col gap-2 border-b border-rule p-4">
      <div className="flex items-center justify-between">
        <h2 className="section-title">Column</h2>
        <button
          type="button"
          className="icon-button size-6"
          aria-label={column.hidden ? `Offer ${column.name} again` : `Hide ${column.name}`}
          title={
            column.hidden
              ? "Hidden: offered nowhere, but formulas that name it go on"
              : "Hide: offer it nowhere; formulas that name it go on"
          }
          onClick={() =>
            apply({
              type: "change column",
              table: table.id,
              column: column.name,
              change: { hidden: !column.hidden },
            })
          }
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
              apply({
                type: "change column",
                table: table.id,
                column: column.name,
                change: { name: text.trim() },
              });
              onRenamed(text.trim());
              toast(`Renamed to ${text.trim()}, in the formulas too.`);
            }}
          />
        )}
      </Labelled>
      <Labelled label="Read as">
        {(id) => (
          <Choose
            id={id}
            value={pattern === null ? readingKey(now) : OWN_PATTERN}
            options={options}
            onChange={(key) => void ask(key)}
          />
        )}
      </Labelled>
      {pattern !== null && (
        <PatternEntry
          pattern={pattern}
          onPattern={setPattern}
          onUse={(reading) => void tryReading(reading)}
        />
      )}
      {asked ? (
        <div role="alert" className="rounded-sm bg-amber-tint p-2 text-sm">
          {asked.unread} {asked.unread === 1 ? "cell does" : "cells do"} not read as{" "}
          {readingLabel(asked.reading)} and would count as empty.
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
            {profile.unread} {profile.unread === 1 ? "cell does" : "cells do"} not read as{" "}
            {readingLabel(column.reading)} and {profile.unread === 1 ? "counts" : "count"} as empty.
            <UnreadList cells={profile.unreadCells} count={profile.unread} />
          </div>
        )
      )}
      {column.reading.type === "text" && (
        <Labelled label="Words kept">
          {(id) => (
            <CommitField
              id={id}
              value={(column.reading.kept ?? []).join(", ")}
              placeholder="none: NA, None, - … are empty"
              check={keptProblem}
              onCommit={(text) => read(withWords(column.reading, keptIn(text)))}
            />
          )}
        </Labelled>
      )}
      <ColumnFacts profile={profile} />
    </section>
  );
}
