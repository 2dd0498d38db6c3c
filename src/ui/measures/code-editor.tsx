"use client";
import { startCompletion } from "@codemirror/autocomplete";
import { EditorState } from "@codemirror/state";
import { EditorView } from "@codemirror/view";
import { useEffect, useLayoutEffect, useRef } from "react";
import { useTextValues } from "../shared/column-values";
import type { FormulaField } from "./formula-field";
import { formulaExtensions, setScope, showProblems } from "./formula-language";

/** A name that is being written. */
const BEGUN = /[\p{L}_:][\p{L}\p{N}_.]*$/u;

/** The editor of one formula: completes names, and underlines problems where they are. */
export function CodeEditor({
  label,
  value,
  scope,
  table,
  level = "group",
  problems,
  onChange,
  handOver,
}: FormulaField) {
  const host = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView | null>(null);
  const change = useRef(onChange);
  const first = useRef(value);
  const completes = useRef(false);
  useEffect(() => {
    change.current = onChange;
  });
  // In the same commit that takes the plain field away, so that no key falls between the two.
  useLayoutEffect(() => {
    if (!host.current) return;
    const made = new EditorView({
      parent: host.current,
      state: EditorState.create({
        doc: first.current,
        extensions: formulaExtensions(label, (text) => change.current(text)),
      }),
    });
    view.current = made;
    // Who typed in the plain field goes on where the caret was.
    const typed = handOver.current;
    handOver.current = null;
    if (typed) {
      made.focus();
      const within = (at: number) => Math.min(at, made.state.doc.length);
      made.dispatch({ selection: { anchor: within(typed.from), head: within(typed.to) } });
      completes.current = BEGUN.test(made.state.sliceDoc(0, within(typed.to)));
    }
    return () => made.destroy();
  }, [label, handOver]);
  useEffect(() => {
    const now = view.current;
    // Undo and renames change the text from outside; the caret stays where it was, or at the end.
    if (!now || now.state.doc.toString() === value) return;
    const { doc, selection } = now.state;
    const { head } = selection.main;
    const anchor = head === doc.length ? value.length : Math.min(head, value.length);
    now.dispatch({ changes: { from: 0, to: doc.length, insert: value }, selection: { anchor } });
  }, [value]);
  const valuesOf = useTextValues();
  useEffect(() => {
    const now = view.current;
    now?.dispatch({ effects: setScope.of({ scope, table, level, valuesOf }) });
    // A name that was begun in the plain field is completed as if it had been begun here.
    if (now && completes.current) startCompletion(now);
    completes.current = false;
  }, [scope, table, level, valuesOf]);
  useEffect(() => {
    if (view.current) showProblems(view.current, problems);
  }, [problems]);
  return (
    <div
      ref={host}
      className="rounded-lg border border-rule bg-sheet focus-within:border-verdigris [&_.cm-editor]:rounded-lg"
    />
  );
}
