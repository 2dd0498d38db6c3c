"use client";
import { useRef } from "react";
import type { Visual } from "@/core/project/schema";
import { saysTheSame } from "@/core/view/look";
import { useProject } from "../shared/project-context";

/**
 * The visuals by what they say: the same list until a sentence changes, so that a turning dial draws nothing
 * of the screen but the stage and itself. What needs a visual's dials takes it with `useVisual`.
 */
export function useSentences(): Visual[] {
  const known = useRef<Visual[]>([]);
  return useProject((s) => {
    const now = s.document.visuals;
    const before = known.current;
    if (now.length !== before.length || !now.every((v, i) => saysTheSame(v, before[i]))) known.current = now;
    return known.current;
  });
}

/** A visual as it is now, dials and all. */
export function useVisual(id: string): Visual {
  const found = useProject((s) => s.document.visuals.find((v) => v.id === id));
  const last = useRef(found);
  // In the moment in which it is removed, its last state is still drawn.
  if (found) last.current = found;
  return last.current as Visual;
}
