"use client";
import { useLayoutEffect, useRef } from "react";
import { later, UNASKED } from "../shared/fetched-later";
import type { FormulaField } from "./formula-field";

/** A formula in a plain field, until the editor that knows names and places of problems has come. */
function PlainField({ label, value, onChange, handOver }: FormulaField) {
  const field = useRef<HTMLTextAreaElement>(null);
  useLayoutEffect(() => {
    const own = field.current;
    return () => {
      if (own && own === document.activeElement)
        handOver.current = { from: own.selectionStart, to: own.selectionEnd };
    };
  }, [handOver]);
  return (
    <textarea
      ref={field}
      aria-label={label}
      value={value}
      spellCheck={false}
      rows={Math.max(1, value.split("\n").length)}
      className="block min-h-[66px] w-full resize-none rounded-lg border border-rule bg-sheet px-4 py-3 font-mono text-[14px] leading-[1.75] outline-none focus:border-verdigris"
      onChange={(event) => onChange(event.currentTarget.value)}
    />
  );
}

/** The plain field can be used: what the step needs to be useful at all goes first. */
const FETCH_AFTER = 1000;
const Editor = later(() => import("./code-editor").then((m) => m.CodeEditor), {
  ...UNASKED,
  waiting: PlainField,
  after: FETCH_AFTER,
});

/** The field of one formula: completes names, and underlines problems where they are. */
export function FormulaEditor(props: Omit<FormulaField, "handOver">) {
  const handOver: FormulaField["handOver"] = useRef(null);
  return <Editor {...props} handOver={handOver} />;
}
