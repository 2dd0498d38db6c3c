"use client";
import { useRouter } from "next/navigation";
import { type ReactNode, useEffect, useState } from "react";
import { cutText } from "@/core/base/cut-text";
import type { Merged } from "@/core/changes/merge";
import { api } from "./api";
import { useConnection } from "./connection";
import { later, OVER } from "./fetched-later";
import { fetchMerging } from "./merging";
import { toast } from "./notice";
import { useProject, useProjectStore } from "./project-context";
import { useTellEdit } from "./tell-edit";
import { forgetUnsaved, leftUnsaved, type Unsaved } from "./unsaved";

const ConflictsDialog = later(() => import("./conflicts-dialog").then((m) => m.ConflictsDialog), OVER);

const timeOf = (at: number) =>
  new Date(at).toLocaleTimeString(undefined, { hour: "2-digit", minute: "2-digit" });
const momentOf = (at: number) =>
  new Date(at).toLocaleString(undefined, { dateStyle: "medium", timeStyle: "short" });
const said = (error: unknown) => (error instanceof Error ? error.message : String(error));

function Banner({
  tone,
  children,
  actions,
}: {
  tone: "amber" | "signal";
  children: ReactNode;
  actions: ReactNode;
}) {
  const look = tone === "amber" ? "border-amber-line bg-amber-tint" : "border-signal bg-signal-tint";
  return (
    <div
      role="alert"
      className={`flex flex-wrap items-center gap-x-3 gap-y-1.5 border-b px-4 py-2 text-sm text-ink ${look}`}
    >
      <span className="min-w-48 flex-1">{children}</span>
      <span className="flex flex-wrap gap-2">{actions}</span>
    </div>
  );
}

/** Makes a new project out of what this window has, and goes there. */
function useKeepAsNew(): { busy: boolean; keep: (document?: Unsaved["document"]) => Promise<boolean> } {
  const store = useProjectStore();
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const keep = async (from?: Unsaved["document"]) => {
    setBusy(true);
    try {
      const document = from ?? store.getState().document;
      const { project } = await api.copyProject(store.getState().id, {
        ...document,
        name: cutText(`${document.name} (this window)`, 120),
      });
      router.push(`/p/${project.id}/data`);
      return true;
    } catch (error) {
      toast.error(said(error));
      return false;
    } finally {
      setBusy(false);
    }
  };
  return { busy, keep };
}

/**
 * Told where another window saved first, and what both changed does not go together: the person says which of
 * the two is kept.
 */
function Behind() {
  const store = useProjectStore();
  const base = useProject((s) => s.base);
  const conflicts = useProject((s) => s.conflicts);
  const takeNewer = useProject((s) => s.takeNewer);
  const revision = useProject((s) => s.newer?.revision);
  const [isOpen, setOpen] = useState(false);
  const { busy, keep } = useKeepAsNew();
  const many = conflicts.length === 1 ? "One thing was" : `${conflicts.length} things were`;
  return (
    <>
      <Banner
        tone="amber"
        actions={
          <>
            <button type="button" className="button button-strong" onClick={() => setOpen(true)}>
              Look at both
            </button>
            <button
              type="button"
              className="button"
              disabled={busy}
              onClick={async () => (await keep()) && takeNewer()}
            >
              Keep mine as a new project
            </button>
          </>
        }
      >
        <strong>{many} changed in another window too.</strong> Nothing was overwritten, and nothing is saved
        here until you say which is kept.
      </Banner>
      {isOpen && (
        <ConflictsDialog
          // What was chosen is chosen of these conflicts, and not of those that a later save makes.
          key={revision}
          base={base}
          conflicts={conflicts}
          mine="This window"
          theirs="The other window"
          onSettle={(takeMine) => store.getState().settle(takeMine)}
          onClose={() => setOpen(false)}
        />
      )}
    </>
  );
}

function Deleted() {
  const store = useProjectStore();
  const { busy, keep } = useKeepAsNew();
  const bringBack = async () => {
    try {
      await api.undelete(store.getState().id);
      store.setState({ saveState: "unsaved" });
      await store.getState().flush();
    } catch (error) {
      toast.error(said(error));
    }
  };
  return (
    <Banner
      tone="signal"
      actions={
        <>
          <button type="button" className="button" onClick={() => void bringBack()}>
            Bring it back
          </button>
          <button type="button" className="button" disabled={busy} onClick={() => void keep()}>
            Keep mine as a new project
          </button>
        </>
      }
    >
      <strong>This project was removed in another window.</strong> What you see is kept in this window;
      nothing of it is saved until you say where.
    </Banner>
  );
}

/** Told while saving fails: what is not saved, since when, why, and that it is kept and tried again. */
function Failing() {
  const state = useProject((s) => s.saveState);
  const problem = useProject((s) => s.saveProblem);
  const since = useProject((s) => s.unsavedSince);
  const isKept = useProject((s) => s.isKept);
  const store = useProjectStore();
  return (
    <Banner
      tone="signal"
      actions={
        <button type="button" className="button" onClick={() => void store.getState().flush()}>
          Save now
        </button>
      }
    >
      <strong>Your changes since {since === null ? "now" : timeOf(since)} are not saved.</strong> {problem}{" "}
      {isKept ? "They are kept in this browser." : "They are in this window only: leave it open."}{" "}
      {state === "waiting" && "Saving is tried again by itself."}
    </Banner>
  );
}

/** Told while the server does not answer and nothing waits to be saved. */
function Away({ since }: { since: number }) {
  return (
    <Banner tone="amber" actions={null}>
      <strong>Cavlo's server does not answer since {timeOf(since)}.</strong> What this window can answer
      itself goes on, all else stays as it was last. Start it with ./start where it was stopped; this window
      goes on by itself.
    </Banner>
  );
}

/** Offers what a window that is gone could not save. */
function LeftUnsaved() {
  const id = useProject((s) => s.id);
  const store = useProjectStore();
  const tellEdit = useTellEdit();
  const [left, setLeft] = useState<Unsaved[]>([]);
  const [asking, setAsking] = useState<{ merged: Merged; now: Unsaved["document"] } | null>(null);
  const { busy, keep } = useKeepAsNew();
  useEffect(() => {
    void leftUnsaved(id).then((found) => {
      const { document } = store.getState();
      const now = JSON.stringify(document);
      const [same, other] = [
        found.filter((u) => JSON.stringify(u.document) === now),
        found.filter((u) => JSON.stringify(u.document) !== now),
      ];
      for (const u of same) void forgetUnsaved(u.project, u.window);
      setLeft(other);
    });
  }, [id, store]);
  const [unsaved] = left;
  if (!unsaved) return null;
  const discard = () => {
    void forgetUnsaved(unsaved.project, unsaved.window);
    setLeft(left.slice(1));
  };
  const { document: now, revision } = store.getState();
  const base = unsaved.base ?? now;
  const isOlder = unsaved.revision < revision;
  const put = (document: Unsaved["document"]) => {
    store.getState().apply({ type: "take document", document });
    discard();
    tellEdit("The changes are back.");
  };
  const together = async (takeMine?: (conflict: number) => boolean) => {
    const { merge } = await fetchMerging();
    const current = store.getState().document;
    // What was chosen is chosen of the conflicts that were shown.
    const chosen = current === asking?.now ? takeMine : undefined;
    const merged = merge(base, unsaved.document, current, chosen);
    if (merged.conflicts.length > 0 && !chosen) setAsking({ merged, now: current });
    else put(merged.document);
  };
  const putBack = (takeMine?: (conflict: number) => boolean) =>
    void together(takeMine).catch((error) => toast.error(said(error)));
  return (
    <>
      <Banner
        tone="amber"
        actions={
          <>
            <button type="button" className="button" onClick={() => putBack()}>
              Put them back
            </button>
            <button
              type="button"
              className="button"
              disabled={busy}
              onClick={async () => (await keep(unsaved.document)) && discard()}
            >
              Open them as a new project
            </button>
            <button type="button" className="button" onClick={discard}>
              Discard them
            </button>
          </>
        }
      >
        <strong>Changes of {momentOf(unsaved.at)} were never saved.</strong> A window was closed before they
        could be; this browser kept them.
        {isOlder && " The project was changed since then: what is there now is kept beside them."}
      </Banner>
      {asking && (
        <ConflictsDialog
          base={base}
          conflicts={asking.merged.conflicts}
          mine="What was never saved"
          theirs="What is there now"
          onSettle={putBack}
          onClose={() => setAsking(null)}
        />
      )}
    </>
  );
}

/** What is to be said about saving, at the top of every screen of a project. */
export function SaveNotices() {
  const state = useProject((s) => s.saveState);
  const awaySince = useConnection((s) => s.awaySince);
  const isSaid = ["waiting", "refused", "deleted", "behind"].includes(state);
  return (
    <>
      {state === "behind" && <Behind />}
      {state === "deleted" && <Deleted />}
      {(state === "waiting" || state === "refused") && <Failing />}
      {awaySince !== null && !isSaid && <Away since={awaySince} />}
      {/* What it offers needs the server, and one thing is said at a time. */}
      {awaySince === null && !isSaid && <LeftUnsaved />}
    </>
  );
}
