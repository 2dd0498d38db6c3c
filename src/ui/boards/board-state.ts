"use client";
import { useMemo, useState } from "react";
import { own, withOwn } from "@/core/base/own";
import type { Value } from "@/core/base/value";
import type { Filter } from "@/core/plan/query";
import type { Board, Control, Project } from "@/core/project/schema";

/** What a viewer has chosen on a board; nothing of it is saved. */
export interface BoardState {
  chosenOf: (control: Extract<Control, { type: "filter" }>) => Value[];
  choose: (controlId: string, values: Value[]) => void;
  inputs: Record<string, Value>;
  setInput: (name: string, value: Value) => void;
  filters: Filter[];
}

/** The state of a board's controls: what the board begins with, changed by the viewer. */
export function useBoardState(board: Board, project: Project): BoardState {
  const [chosen, setChosen] = useState<Record<string, Value[]>>({});
  const [inputs, setInputs] = useState<Record<string, Value>>({});
  const { controls } = board;
  const filters = useMemo(
    () =>
      controls.flatMap((c): Filter[] => {
        if (c.type !== "filter") return [];
        const values = own(chosen, c.id) ?? c.chosen;
        return values.length
          ? [{ column: `${c.table}.${c.column}`, ...(c.by ? { by: c.by } : {}), in: values }]
          : [];
      }),
    [controls, chosen],
  );
  // An input that was removed or renamed meanwhile has no say any more.
  const known = useMemo(
    () =>
      Object.fromEntries(
        Object.entries(inputs).filter(([name]) => project.inputs.some((i) => i.name === name)),
      ),
    [inputs, project.inputs],
  );
  return {
    chosenOf: (control) => own(chosen, control.id) ?? control.chosen,
    choose: (id, values) => setChosen((now) => withOwn(now, id, values)),
    inputs: known,
    setInput: (name, value) => setInputs((now) => withOwn<Value>(now, name, value)),
    filters,
  };
}
