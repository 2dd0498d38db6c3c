"use client";
import { type KeyboardEvent, useMemo, useState } from "react";
import { steppedBy } from "@/core/base/stepped-by";
import { datumsOf, datumText, type PlacedDatum } from "@/core/scene/datums";
import { type Focus, focusOf, type Scene } from "@/core/scene/marks";
import type { LivePicture } from "@/render/painter/live";

/**
 * Walks through the marks of a picture by arrow keys, Home and End: what the pointer would say there is shown
 * and said; Escape leaves.
 */
export function useMarkWalk(
  scene: Scene,
  live: LivePicture | null,
  onFocus?: (focus: Focus | null) => void,
): { datums: PlacedDatum[]; said: string; keys: React.HTMLAttributes<HTMLElement> & { tabIndex: number } } {
  const datums = useMemo(() => datumsOf(scene), [scene]);
  const [at, setAt] = useState(-1);
  const go = (place: number) => {
    setAt(place);
    const here = datums[place];
    live?.tell(here?.datum ?? null, here?.x ?? 0, here?.y ?? 0);
    onFocus?.(here ? focusOf(here) : null);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.target !== event.currentTarget || event.ctrlKey || event.metaKey || event.altKey) return;
    const here = datums[at];
    const next = steppedBy(event.key, at, datums.length);
    if (next !== null) go(next);
    else if (here && event.key === "Escape") go(-1);
    else return;
    event.preventDefault();
  };
  return {
    datums,
    said: at >= 0 && datums[at] ? datumText(datums[at].datum) : "",
    keys: {
      tabIndex: 0,
      "aria-description": "Arrow keys go from mark to mark",
      onKeyDown,
      onBlur: () => at >= 0 && go(-1),
    },
  };
}
