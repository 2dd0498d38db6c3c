"use client";
import { toast } from "./notice";
import { useProjectStore } from "./project-context";

/** A message with a way back stays so long, in milliseconds. */
const LONG_ENOUGH = 10_000;

/**
 * Says what the last edit did, with a way to take exactly that back: where other edits came after it, none of
 * them is taken back in its place.
 */
export function useTellEdit(): (text: string, duration?: number) => void {
  const store = useProjectStore();
  return (text, duration = LONG_ENOUGH) => {
    const step = store.getState().past.at(-1);
    const takeBack = () => {
      const { past, undo } = store.getState();
      if (past.at(-1) === step) undo();
      else toast("Other edits came after it. Undo in the header takes them back first, one by one.");
    };
    toast(text, { duration, action: { label: "Undo", onClick: takeBack } });
  };
}
