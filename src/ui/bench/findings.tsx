"use client";
import { useRef, useState } from "react";
import { own, withOwn } from "@/core/base/own";
import { LONGEST } from "@/core/project/most";
import type { Visual } from "@/core/project/schema";
import type { Finding } from "@/core/review/finding";
import { useProject, useProjectStore } from "../shared/project-context";
import { StepLink } from "../shared/step-link";

/** One finding: what is wrong and why it matters, its mend, and a way to leave it with a reason. */
function OneFinding({
  visual,
  finding,
  onDone,
}: {
  visual: Visual;
  finding: Finding;
  /** Hears that the finding is gone, so that the focus does not go with it. */
  onDone: () => void;
}) {
  const apply = useProject((s) => s.apply);
  const store = useProjectStore();
  const [asking, setAsking] = useState(false);
  const { id, text, why, mend, measure } = finding;
  const leave = (reason: string) => {
    apply({
      type: "change visual",
      id: visual.id,
      change: { leftFindings: withOwn(visual.leftFindings, id, reason.trim() || "as it is") },
    });
    onDone();
  };
  return (
    <li className="text-sm">
      <span className="text-signal">{text}</span> <span className="text-muted">{why}</span>{" "}
      {mend && (
        <button
          type="button"
          className="font-medium underline"
          onClick={() => {
            apply(mend.edit);
            onDone();
          }}
        >
          {mend.label}
        </button>
      )}{" "}
      {measure && (
        <StepLink
          to={`/p/${store.getState().id}/measures?measure=${measure.id}`}
          className="font-medium underline"
        >
          Open {measure.label}
        </StepLink>
      )}{" "}
      {asking ? (
        <form
          className="mt-1 flex gap-1.5"
          onSubmit={(e) => {
            e.preventDefault();
            leave(String(new FormData(e.currentTarget).get("reason") ?? ""));
          }}
        >
          <input
            name="reason"
            aria-label="Why it is left as it is"
            placeholder="Why it is left as it is"
            maxLength={LONGEST.reason}
            // biome-ignore lint/a11y/noAutofocus: the field was just asked for
            autoFocus
            className="field h-7 min-w-0 flex-1"
            onKeyDown={(e) => e.key === "Escape" && setAsking(false)}
          />
          <button type="submit" className="button h-7">
            Leave it
          </button>
        </form>
      ) : (
        <button type="button" className="text-muted underline" onClick={() => setAsking(true)}>
          Leave it
        </button>
      )}
    </li>
  );
}

/** What the review says of a visual; what was left as it is can be looked at again. */
export function Findings({ visual, found }: { visual: Visual; found: Finding[] }) {
  const apply = useProject((s) => s.apply);
  const around = useRef<HTMLDivElement>(null);
  const keepFocus = () => around.current?.focus();
  const isLeft = (f: Finding) => own(visual.leftFindings, f.id) !== undefined;
  const open = found.filter((f) => !isLeft(f));
  const left = found.filter(isLeft);
  // What is around stays when the last finding goes, and keeps the focus.
  return (
    <div ref={around} tabIndex={-1} className="outline-none">
      {found.length > 0 && (
        <section aria-label="Review" className="mt-1 max-h-24 overflow-auto p-0.5">
          <div role="status">
            <ul className="flex flex-col gap-0.5">
              {open.map((finding) => (
                <OneFinding key={finding.id} visual={visual} finding={finding} onDone={keepFocus} />
              ))}
            </ul>
          </div>
          {left.map((f) => (
            <p key={f.id} className="text-sm text-muted">
              Left as it is: {f.text} “{own(visual.leftFindings, f.id)}”{" "}
              <button
                type="button"
                className="underline"
                onClick={() => {
                  const { [f.id]: _gone, ...rest } = visual.leftFindings;
                  apply({ type: "change visual", id: visual.id, change: { leftFindings: rest } });
                }}
              >
                Look again
              </button>
            </p>
          ))}
        </section>
      )}
    </div>
  );
}
