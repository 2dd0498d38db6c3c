import type { Problem } from "@/core/base/problem";

const SHOWN = 4;

/** The problems of a formula in words, each with its mends. */
export function ProblemList({
  formula,
  problems,
  onMend,
}: {
  formula: string;
  problems: Problem[];
  onMend: (formula: string) => void;
}) {
  return (
    <ul className="flex flex-col gap-1 text-sm" aria-live="polite">
      {problems.slice(0, SHOWN).map((p) => (
        <li key={`${p.start} ${p.message}`} className="text-signal">
          {p.message}
          {p.mends?.map((m) => (
            <button
              key={m.label}
              type="button"
              className="ml-2 rounded-sm bg-verdigris px-1.5 py-0.5 text-xs font-medium text-sheet"
              onClick={() => onMend(formula.slice(0, m.start) + m.text + formula.slice(m.end))}
            >
              {m.label}
            </button>
          ))}
        </li>
      ))}
      {problems.length > SHOWN && <li className="text-muted">and {problems.length - SHOWN} more</li>}
    </ul>
  );
}
