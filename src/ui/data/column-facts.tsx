import type { TableProfile } from "@/server/compute/protocol";

const shown = (value: unknown) => (value === null ? "—" : String(value));

/**
 * What a column holds: its limits, distinct and empty values, the most frequent texts, and cells that
 * do not read.
 */
export function ColumnFacts({ profile }: { profile: TableProfile["columns"][number] | null }) {
  const facts = [
    ["Smallest", profile && shown(profile.min)],
    ["Largest", profile && shown(profile.max)],
    ["Distinct", profile?.distinct],
    ["Empty", profile?.nulls],
  ] as const;
  return (
    <>
      <dl className="grid grid-cols-[96px_1fr] gap-x-2 gap-y-1 text-sm">
        {facts.map(([label, value]) => (
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
              <span
                className="absolute inset-y-0 left-0 rounded-sm bg-tint"
                style={{ width: `${(bar.count / profile.bars[0].count) * 100}%` }}
              />
              <span className="relative truncate">{bar.label}</span>
              <span className="relative font-mono text-muted">{bar.count}</span>
            </li>
          ))}
        </ul>
      )}
    </>
  );
}

/** Cells that a reading cannot read, by their rows. */
export function UnreadList({ cells, count }: { cells: { row: number; text: string }[]; count: number }) {
  return (
    <ul className="mt-1 font-mono text-xs" aria-label="Cells that do not read">
      {cells.map((c) => (
        <li key={c.row} className="flex justify-between gap-2">
          <span className="truncate">{c.text}</span>
          <span className="shrink-0 text-muted">row {c.row}</span>
        </li>
      ))}
      {count > cells.length && <li className="text-muted">the first and the last of {count}</li>}
    </ul>
  );
}
