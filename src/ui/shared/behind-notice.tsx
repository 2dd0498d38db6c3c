"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { api } from "./api";
import { toast } from "./notice";
import { useProject, useProjectStore } from "./project-context";

/** Told where another window saved first: nothing was overwritten, and the person says which version goes on. */
export function BehindNotice() {
  const behind = useProject((s) => s.saveState === "behind");
  const takeNewer = useProject((s) => s.takeNewer);
  const store = useProjectStore();
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  if (!behind) return null;
  const keepBoth = async () => {
    setBusy(true);
    try {
      const { document } = store.getState();
      const answer = await api.copyProject(store.getState().id, { ...document, name: `${document.name} (this window)`.slice(0, 120) });
      takeNewer();
      router.push(`/p/${answer.project.id}/data`);
    } catch (error) {
      toast.error(error instanceof Error ? error.message : String(error));
    }
    setBusy(false);
  };
  return (
    <div role="alert" className="flex items-center gap-3 border-b border-amber-line bg-amber-tint px-4 py-2 text-sm text-ink">
      <span className="flex-1">
        <strong>This project was changed in another window.</strong> What you did here since then is not saved, and nothing was overwritten.
      </span>
      <button type="button" className="button" onClick={takeNewer}>
        Take the newer version
      </button>
      <button type="button" className="button" disabled={busy} onClick={keepBoth}>
        Keep mine as a new project
      </button>
    </div>
  );
}
