"use client";
import { X } from "lucide-react";
import { Dialog } from "radix-ui";
import { isTimeZone } from "@/core/base/calendar";
import { own, withOwn } from "@/core/base/own";
import { WORDS, type WordName, wordProblem } from "@/core/project/fixed-words";
import type { Conventions } from "@/core/project/schema";
import { Choose } from "./choose";
import { CommitField } from "./commit-field";
import { Labelled } from "./labelled";
import { useProject } from "./project-context";
import { useReturnFocus } from "./return-focus";
import { stayForField } from "./unsaved-field";

const WEEK_STARTS = [
  { value: "monday", label: "Monday" },
  { value: "sunday", label: "Sunday" },
  { value: "saturday", label: "Saturday" },
];
const FIRST_WEEKS = [
  { value: "iso", label: "the one with its first Thursday" },
  { value: "first day", label: "the one with 1 January" },
];
const MONTHS = "January February March April May June July August September October November December".split(
  " ",
);
/** Where each word is said, for who writes another. */
const SAID_OF: Record<WordName, string> = {
  other: "groups put together",
  noMatch: "rows that a link finds nothing for",
  none: "an empty cell",
  yes: "true",
  all: "All, where nothing is picked",
  no: "false",
  of: "between a value and its target",
  together: "after the number of groups in Other",
  week: "before the number of a week",
  quarter: "before the number of a quarter",
  pastGoal: "a value above its target",
  pastEnd: "a value above a scale",
  belowZero: "a value below zero",
  belowStart: "a value below a scale",
  noTarget: "a ring that has nothing to run against",
  whole: "a measure that filters leave whole",
  noOwnTarget: "a row that has no target of its own",
  fullAtOwn: "rows that each run to a target of their own",
  stemOwn: "stems that each start somewhere else",
  and: "between two names",
  noNames: "after the number of names that have no room",
  more: "names that a legend or a text leaves out",
  unfit: "rows that have no room",
  belowLeftOut: "values that have no part of a whole",
  tinyLeftOut: "parts too small for a cell",
  emptyTracks: "values that no bar starts for",
  notShown: "the part of a whole that has no row",
  notAdditive: "parts that make no whole together",
  fullAt: "the end of a scale that nobody named",
  scaleStart: "a scale that does not start at zero",
  stemStart: "stems that do not start at zero",
  headArea: "what the area of heads shows",
  twoScales: "two measures on scales of their own",
  noGoal: "a target that nothing can run to",
  against: "between a change and what it is against",
  left: "what remains to a target",
  net: "the total of parts above and below zero",
  value: "the value, in a tooltip",
  share: "the share, in a tooltip",
  picked: "the share that is picked, in a tooltip",
  target: "the target, in a tooltip",
  gap: "the gap to it, in a tooltip",
  points: "after the difference of two percents",
  zone: "the zone, in a tooltip",
  cells: "the number of cells, in a tooltip",
  within: "the series, in a tooltip",
};

function Fields() {
  const now = useProject((s) => s.document.conventions);
  const apply = useProject((s) => s.apply);
  const set = (change: Partial<Conventions>) => apply({ type: "change conventions", change });
  return (
    <div className="flex min-h-0 flex-col gap-1.5 overflow-auto px-4 py-3 [&>div]:grid-cols-[150px_1fr]">
      <Labelled label="Weeks begin on">
        {(id) => (
          <Choose
            id={id}
            value={now.weekStart}
            options={WEEK_STARTS}
            onChange={(day) => set({ weekStart: day as Conventions["weekStart"] })}
          />
        )}
      </Labelled>
      <Labelled label="First week of a year">
        {(id) => (
          <Choose
            id={id}
            value={now.weekOne}
            options={FIRST_WEEKS}
            onChange={(week) => set({ weekOne: week as Conventions["weekOne"] })}
          />
        )}
      </Labelled>
      <Labelled label="Years begin in">
        {(id) => (
          <Choose
            id={id}
            value={String(now.yearStart)}
            options={MONTHS.map((label, i) => ({ value: String(i + 1), label }))}
            onChange={(month) => set({ yearStart: Number(month) })}
          />
        )}
      </Labelled>
      <Labelled label="Time zone of today">
        {(id) => (
          <CommitField
            id={id}
            value={now.timeZone}
            placeholder="that of the server"
            check={(text) => (isTimeZone(text.trim()) ? null : "Write a time zone such as Europe/Lisbon.")}
            onCommit={(timeZone) => set({ timeZone: timeZone.trim() })}
          />
        )}
      </Labelled>
      <Labelled label="New numbers in">
        {(id) => (
          <CommitField
            id={id}
            value={now.locale}
            placeholder="plain, or a language such as de"
            check={(text) => (text.trim().length > 35 ? "At most 35 characters." : null)}
            onCommit={(locale) => set({ locale: locale.trim() || "plain" })}
          />
        )}
      </Labelled>
      <Labelled label="Currency">
        {(id) => (
          <CommitField
            id={id}
            value={now.currency}
            check={(text) =>
              /^[A-Z]{3}$/.test(text.trim()) ? null : "A currency is three capitals, for example EUR."
            }
            onCommit={(currency) => set({ currency: currency.trim() })}
          />
        )}
      </Labelled>
      <h3 className="section-title pt-3">Words in pictures</h3>
      {(Object.keys(WORDS) as WordName[]).map((name) => (
        <Labelled key={name} label={SAID_OF[name]}>
          {(id) => (
            <CommitField
              id={id}
              value={own(now.words, name) ?? ""}
              placeholder={WORDS[name]}
              check={(word) => wordProblem(name, word)}
              onCommit={(word) => set({ words: withOwn(now.words, name, word.trim() || null) })}
            />
          )}
        </Labelled>
      ))}
    </div>
  );
}

/** How a project counts weeks and years, what it writes numbers in, and the fixed words of its pictures. */
export function ConventionsDialog({ onClose }: { onClose: () => void }) {
  const returnFocus = useReturnFocus();
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/25" />
        <Dialog.Content
          onEscapeKeyDown={stayForField}
          onCloseAutoFocus={returnFocus}
          className="fixed top-1/2 left-1/2 z-50 flex max-h-[86vh] w-[500px] max-w-[calc(100vw-16px)] -translate-x-1/2 -translate-y-1/2 flex-col rounded-md border border-rule bg-sheet shadow-stage"
        >
          <div className="flex items-start gap-2 border-b border-rule px-4 py-3">
            <div className="min-w-0 flex-1">
              <Dialog.Title className="text-md">Calendar and language</Dialog.Title>
              <Dialog.Description className="text-sm text-muted">
                Of the whole project: its splits and filters by time, and what its pictures say.
              </Dialog.Description>
            </div>
            <Dialog.Close className="icon-button size-7" aria-label="Close">
              <X size={15} />
            </Dialog.Close>
          </div>
          <Fields />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
