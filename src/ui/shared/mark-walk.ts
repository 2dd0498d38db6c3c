"use client";
import { useEffect, useMemo, useRef } from "react";
import { steppedBy } from "@/core/base/stepped-by";
import { datumsOf, type PlacedDatum } from "@/core/scene/datums";
import { type Focus, focusOf, type Scene } from "@/core/scene/marks";
import { MarkList } from "@/render/mark-list";
import type { LivePicture } from "@/render/painter/live";

/**
 * Walks through the marks of a picture by arrow keys, Home and End: what the pointer would say there is
 * shown, and the mark is the one that assistive technology is told of; Escape leaves. `over` is the element
 * that the marks lie in, over the picture.
 */
export function useMarkWalk(
  scene: Scene,
  name: string,
  live: LivePicture | null,
  onFocus?: (focus: Focus | null) => void,
): { datums: PlacedDatum[]; over: React.RefObject<HTMLDivElement | null> } {
  const over = useRef<HTMLDivElement>(null);
  const datums = useMemo(() => datumsOf(scene), [scene]);
  const now = useRef({ datums, live, onFocus });
  const list = useRef<MarkList | null>(null);
  useEffect(() => {
    Object.assign(now.current, { live, onFocus });
  });
  useEffect(() => {
    let at = -1;
    const go = (place: number) => {
      at = place;
      const { datums: marks, live: picture, onFocus: tell } = now.current;
      const here = marks[place];
      picture?.tell(here?.datum ?? null, here?.x ?? 0, here?.y ?? 0);
      made.point(here ? place : -1);
      tell?.(here ? focusOf(here) : null);
    };
    const of = { datums: () => now.current.datums, isPicked: () => null, onChoose: go };
    const made = new MarkList(of, "Arrow keys go from mark to mark.");
    made.root.addEventListener("keydown", (event) => {
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      const next = steppedBy(event.key, at, now.current.datums.length);
      if (next !== null) go(next);
      else if (at >= 0 && event.key === "Escape") go(-1);
      else return;
      event.preventDefault();
      event.stopPropagation();
    });
    made.root.addEventListener("blur", () => at >= 0 && go(-1));
    over.current?.append(made.root);
    list.current = made;
    return () => {
      made.dispose();
      made.root.remove();
    };
  }, []);
  useEffect(() => {
    now.current.datums = datums;
    list.current?.follow(name);
  }, [datums, name]);
  return { datums, over };
}
