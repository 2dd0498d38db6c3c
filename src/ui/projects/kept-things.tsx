"use client";
import { AlertDialog } from "radix-ui";
import { useState } from "react";
import { listed } from "@/core/base/listed";
import type { UnclaimedGroup } from "@/server/keep/reclaim";
import type { Damage } from "@/server/keep/verify";
import type { DeletedProject } from "@/server/store/projects";
import { api } from "../shared/api";
import { toast } from "../shared/notice";

const DAY_MS = 86_400_000;
const daysLeft = (keptUntil: string) => Math.max(0, Math.ceil((Date.parse(keptUntil) - Date.now()) / DAY_MS));
const counted = (n: number, one: string, many: string) => `${n} ${n === 1 ? one : many}`;

function Entry({
  title,
  detail,
  onBack,
  onRemove,
  removing,
}: {
  title: string;
  detail: string;
  onBack?: () => void;
  onRemove: () => void;
  removing: string;
}) {
  return (
    <li className="flex flex-wrap items-center gap-x-3 gap-y-1 px-4 py-2 text-sm">
      <span className="min-w-40 flex-1">
        <span className="font-medium">{title}</span> <span className="text-muted">{detail}</span>
      </span>
      {onBack && (
        <button type="button" className="button h-7" aria-label={`Bring back ${title}`} onClick={onBack}>
          Bring back
        </button>
      )}
      {/* This cannot be undone, so it is asked about. */}
      <AlertDialog.Root>
        <AlertDialog.Trigger className="button h-7" aria-label={`${removing} ${title} …`}>
          {removing} …
        </AlertDialog.Trigger>
        <AlertDialog.Portal>
          <AlertDialog.Overlay className="fixed inset-0 z-40 bg-ink/25" />
          <AlertDialog.Content className="fixed top-28 left-1/2 z-50 w-[min(420px,92vw)] -translate-x-1/2 rounded-lg border border-rule bg-sheet p-5 shadow-stage">
            <AlertDialog.Title className="text-md">
              {removing} {title} for good?
            </AlertDialog.Title>
            <AlertDialog.Description className="mt-2 text-muted">
              This cannot be taken back.
            </AlertDialog.Description>
            <div className="mt-4 flex justify-end gap-2">
              <AlertDialog.Cancel className="button">Keep it</AlertDialog.Cancel>
              <AlertDialog.Action
                className="button border-signal text-signal"
                onClick={onRemove}
                aria-label={`${removing} ${title} for good`}
              >
                {removing} for good
              </AlertDialog.Action>
            </div>
          </AlertDialog.Content>
        </AlertDialog.Portal>
      </AlertDialog.Root>
    </li>
  );
}

type Check = { share: number; found: Damage[]; ended: boolean };

/**
 * What is kept besides the projects (deleted ones, tables that no project names), and how to see that
 * everything is as it was written.
 */
export function KeptThings({
  deleted,
  unclaimed,
  onChange,
}: {
  deleted: DeletedProject[];
  unclaimed: UnclaimedGroup[];
  onChange: () => void;
}) {
  const [check, setCheck] = useState<Check | null>(null);
  const act = (work: Promise<unknown>, said: string) =>
    work.then(
      () => {
        toast(said);
        onChange();
      },
      (problem: Error) => toast.error(problem.message),
    );
  const verify = async () => {
    setCheck({ share: 0, found: [], ended: false });
    try {
      let found: Damage[] = [];
      await api.verify((step) => {
        found = [...found, ...step.found];
        setCheck({ share: step.done / step.of, found, ended: false });
      });
      setCheck({ share: 1, found, ended: true });
    } catch (problem) {
      setCheck(null);
      toast.error(problem instanceof Error ? problem.message : String(problem));
    }
  };
  return (
    <>
      {deleted.length > 0 && (
        <section aria-label="Removed projects" className="mt-8">
          <h2 className="text-md">Removed</h2>
          <ul className="mt-2 divide-y divide-rule rounded-md border border-rule">
            {deleted.map((p) => (
              <Entry
                key={p.id}
                title={p.name}
                detail={`kept for ${counted(daysLeft(p.keptUntil), "day", "days")} more`}
                onBack={() => void act(api.undelete(p.id), `${p.name} is back.`)}
                onRemove={() => void act(api.purge(p.id), `${p.name} is gone for good.`)}
                removing="Remove"
              />
            ))}
          </ul>
        </section>
      )}
      {unclaimed.length > 0 && (
        <section aria-label="Tables that no project names" className="mt-8">
          <h2 className="text-md">Tables that no project names</h2>
          <p className="mt-1 text-sm text-muted">
            They were found in the data folder. Nothing is removed unless you say so.
          </p>
          <ul className="mt-2 divide-y divide-rule rounded-md border border-rule">
            {unclaimed.map((group) => {
              const names = group.tables.map((t) => t.name);
              const known = group.tables.some((t) => t.rows !== null);
              return (
                <Entry
                  key={group.project}
                  title={
                    known
                      ? `${counted(names.length, "table", "tables")} of ${group.name || "an unnamed project"}`
                      : counted(names.length, "unknown table", "unknown tables")
                  }
                  detail={listed(names)}
                  onBack={
                    known
                      ? () =>
                          void act(
                            api.reclaim(group.project),
                            "The tables are back, in a project of their own.",
                          )
                      : undefined
                  }
                  onRemove={() => void act(api.removeUnclaimed(group.project), "The tables are removed.")}
                  removing="Remove"
                />
              );
            })}
          </ul>
        </section>
      )}
      <section
        aria-label="Safe keeping"
        className="mt-10 flex flex-wrap items-center gap-2 border-t border-rule pt-4 text-sm"
      >
        <span className="min-w-40 flex-1 text-muted">
          One file with everything restores it elsewhere: ./start --restore FILE.
        </span>
        <a className="button" href={api.backupAddress} download>
          Back up everything
        </a>
        <button
          type="button"
          className="button"
          disabled={check !== null && !check.ended}
          onClick={() => void verify()}
        >
          Check everything
        </button>
        {check && (
          <div role="status" className="w-full">
            {!check.ended ? (
              <p className="text-muted">Looking … {Math.floor(check.share * 100)} %</p>
            ) : check.found.length === 0 ? (
              <p className="text-good">Every document and every table is as it was written.</p>
            ) : (
              <ul className="flex flex-col gap-1 rounded-sm bg-signal-tint p-2">
                {check.found.map((d) => (
                  <li key={`${d.what} ${d.problem}`}>
                    <strong>{d.what}:</strong> {d.problem}. {d.advice}
                  </li>
                ))}
              </ul>
            )}
          </div>
        )}
      </section>
    </>
  );
}
