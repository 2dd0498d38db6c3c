"use client";
import { timeLeft } from "./import-store";
import { ProgressBar } from "./progress-bar";
import { useImports } from "./project-context";

/** How far the import has come: percent, rows, time left; and a way to end it. */
export function ImportProgress() {
  const running = useImports((s) => s.running);
  const waiting = useImports((s) => s.waiting.length);
  if (!running) return null;
  const percent = Math.floor(running.share * 100);
  const facts = [
    `${percent} %`,
    running.rows ? `${running.rows.toLocaleString("en").replaceAll(",", "\u2009")} rows` : "",
    timeLeft(running, Date.now()),
  ];
  return (
    <div role="status" className="text-sm">
      <div className="truncate text-muted">
        {running.file}
        {waiting > 0 && ` and ${waiting} more`}
      </div>
      <div className="mt-1 flex items-center gap-2">
        <ProgressBar label={`Bringing in ${running.file}`} share={running.share} className="min-w-0 flex-1" />
        <button type="button" className="text-sm underline" onClick={() => running.cancel.abort()}>
          Cancel
        </button>
      </div>
      <div className="mt-0.5 text-xs text-muted">{facts.filter(Boolean).join(" · ")}</div>
    </div>
  );
}
