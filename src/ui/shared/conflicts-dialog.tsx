"use client";
import { Dialog, RadioGroup } from "radix-ui";
import { useMemo, useState } from "react";
import type { Conflict } from "@/core/changes/merge";
import { changeWords } from "@/core/changes/words";
import type { Project } from "@/core/project/schema";
import { useReturnFocus } from "./return-focus";

type Side = "mine" | "theirs";

/** One side of a conflict: whose it is, and what it changed. */
function SideOf({ side, owner, words }: { side: Side; owner: string; words: string[] }) {
  return (
    <RadioGroup.Item
      value={side}
      className="flex w-full items-start gap-2 rounded-md border border-rule px-3 py-2 text-left text-sm data-[state=checked]:border-active"
    >
      <span
        aria-hidden
        className="mt-0.5 flex size-4 shrink-0 items-center justify-center rounded-full border border-muted"
      >
        <RadioGroup.Indicator className="size-2 rounded-full bg-active" />
      </span>
      <span className="min-w-0">
        <strong className="block font-semibold">{owner}</strong>
        {words.length === 0 && <span className="block">As it was</span>}
        {words.map((said) => (
          <span key={said} className="block break-words">
            {said}
          </span>
        ))}
      </span>
    </RadioGroup.Item>
  );
}

/**
 * Shows what two versions of a project changed otherwise, in words, side by side: one of the two is chosen
 * for each.
 */
export function ConflictsDialog({
  base,
  conflicts,
  mine,
  theirs,
  onSettle,
  onClose,
}: {
  /** The document that both grew from. */
  base: Project;
  conflicts: readonly Conflict[];
  /** What each side is called: "This window", "The other window". */
  mine: string;
  theirs: string;
  onSettle: (takeMine: (conflict: number) => boolean) => void;
  onClose: () => void;
}) {
  const returnFocus = useReturnFocus();
  const [taken, setTaken] = useState<Record<number, Side>>({});
  const said = useMemo(
    () => conflicts.map((c) => ({ mine: changeWords(base, c.mine), theirs: changeWords(base, c.theirs) })),
    [base, conflicts],
  );
  const left = conflicts.filter((_, i) => !taken[i]).length;
  const takeAll = (side: Side) => setTaken(Object.fromEntries(conflicts.map((_, i) => [i, side])));
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/25" />
        <Dialog.Content
          onCloseAutoFocus={returnFocus}
          className="fixed top-16 left-1/2 z-50 flex max-h-[80vh] w-[min(640px,94vw)] -translate-x-1/2 flex-col rounded-lg border border-rule bg-sheet shadow-stage"
        >
          <div className="border-b border-rule p-4">
            <Dialog.Title className="text-md">Changed in both</Dialog.Title>
            <Dialog.Description className="mt-1 text-sm text-muted">
              {conflicts.length === 1
                ? "One thing was changed in both, and they do not go together."
                : `${conflicts.length} things were changed in both, and they do not go together.`}{" "}
              All other changes of both are kept.
            </Dialog.Description>
          </div>
          <ol className="min-h-0 flex-1 space-y-4 overflow-y-auto p-4">
            {said.map((words, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: a conflict is known by its place.
              <li key={i}>
                <RadioGroup.Root
                  aria-label={`Which one is kept, ${i + 1} of ${conflicts.length}`}
                  value={taken[i] ?? ""}
                  onValueChange={(side) => setTaken({ ...taken, [i]: side as Side })}
                  className="grid grid-cols-2 gap-2 narrow:grid-cols-1"
                >
                  <SideOf side="mine" owner={mine} words={words.mine} />
                  <SideOf side="theirs" owner={theirs} words={words.theirs} />
                </RadioGroup.Root>
              </li>
            ))}
          </ol>
          <div className="flex flex-wrap items-center gap-2 border-t border-rule p-4">
            {conflicts.length > 1 && (
              <>
                <button type="button" className="button" onClick={() => takeAll("mine")}>
                  All of {mine.toLowerCase()}
                </button>
                <button type="button" className="button" onClick={() => takeAll("theirs")}>
                  All of {theirs.toLowerCase()}
                </button>
              </>
            )}
            <span className="ml-auto text-sm text-muted" aria-live="polite">
              {left > 0 && (left === 1 ? "One is to be chosen" : `${left} are to be chosen`)}
            </span>
            <button
              type="button"
              className="button button-strong"
              disabled={left > 0}
              onClick={() => {
                onClose();
                onSettle((i) => taken[i] === "mine");
              }}
            >
              Keep what is chosen
            </button>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
