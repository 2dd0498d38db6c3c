"use client";
import { useEffect, useRef } from "react";
import type { Value } from "@/core/base/value";
import type { Input } from "@/core/project/schema";
import { choicesForInput } from "@/present/board-controls";
import { type InputView, inputView } from "@/present/input-view";
import { useColumnValues } from "./column-values";

/** The control of an input as boards have it. */
export function InputControl({
  input,
  value,
  onChange,
}: {
  input: Input;
  value: Value;
  onChange: (value: Value) => void;
}) {
  const host = useRef<HTMLDivElement>(null);
  const view = useRef<InputView | null>(null);
  const told = useRef(onChange);
  const { choicesFrom: from } = input;
  const values = useColumnValues(from?.table ?? null, from?.column ?? null);
  // What it is set to does not make it another control.
  const { value: _, ...kept } = input;
  const kind = JSON.stringify(kept);
  useEffect(() => {
    told.current = onChange;
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: what of the input has a say stands in `kind`
  useEffect(() => {
    view.current = inputView(input, "automatic", (now) => told.current(now));
    host.current?.replaceChildren(view.current.root);
  }, [kind]);
  useEffect(() =>
    view.current?.show(
      value,
      choicesForInput(input, () => values),
    ),
  );
  return <div ref={host} />;
}
