"use client";
import { useState } from "react";
import { tooLong } from "./too-long";
import { unsaved } from "./unsaved-field";

/**
 * A text field that changes the document when the person is done: on Enter or when leaving. `check` gives a
 * sentence where the text will not do; then it stays in the field and nothing is changed. Escape takes the
 * old text back.
 */
export function CommitField({
  id,
  label,
  value,
  onCommit,
  check,
  longest = Number.POSITIVE_INFINITY,
  mono = false,
  multiline = false,
  rows = 2,
  placeholder,
}: {
  id?: string;
  label?: string;
  value: string;
  onCommit: (text: string) => void;
  check?: (text: string) => string | null;
  /** How many characters it takes. */
  longest?: number;
  mono?: boolean;
  multiline?: boolean;
  rows?: number;
  placeholder?: string;
}) {
  const [text, setText] = useState<string | null>(null);
  const shown = text ?? value;
  const problem = text !== null && text !== value ? (tooLong(text, longest) ?? check?.(text) ?? null) : null;
  const commit = () => {
    if (text === null || problem) return;
    if (text !== value) onCommit(text);
    setText(null);
  };
  const shared = {
    id,
    "aria-label": label,
    "aria-invalid": problem !== null,
    value: shown,
    placeholder,
    onBlur: commit,
    className: `field ${mono ? "font-mono" : ""} ${problem ? "border-signal" : ""} ${multiline ? "h-auto resize-none py-1.5" : ""}`,
  };
  return (
    <div {...unsaved(text !== null)}>
      {multiline ? (
        <textarea
          {...shared}
          rows={rows}
          onChange={(e) => setText(e.target.value)}
          onKeyDown={(e) => e.key === "Escape" && setText(null)}
        />
      ) : (
        <input
          {...shared}
          onChange={(e) => setText(e.target.value)}
          onKeyDown={(e) => {
            if (e.key === "Enter") commit();
            if (e.key === "Escape") setText(null);
          }}
        />
      )}
      {problem && (
        <p role="alert" className="mt-1 text-xs text-signal">
          {problem}
        </p>
      )}
    </div>
  );
}
