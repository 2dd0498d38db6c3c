"use client";
import { type KeyboardEvent, type PointerEvent, type RefObject, useEffect, useRef, useState } from "react";
import { type Held, movedPlaces, resizedPlaces, swappedPlaces } from "@/core/project/arrange";
import type { Tile } from "@/core/project/schema";
import { COLUMNS, GAP, makeRoom, type Place, rowsOf } from "@/core/project/tile-layout";

/** A hand that moves less than this only clicks, in pixels of the screen. */
const STILL = 4;
/** So near to its edge a scrolled board goes on by itself, and so far at once, in pixels of the screen. */
const NEAR = 36;
const ONWARD = 14;

interface Point {
  x: number;
  y: number;
}
/** A stretch of the board, in its own pixels. */
export interface Stretch extends Point {
  width: number;
  height: number;
}

type Gesture = {
  start: Point;
  /** Where the pointer was pressed, on the screen. */
  pressed: Point;
  base: readonly Tile[];
  rowHeight: number;
  isUnderWay: boolean;
} & (
  | { type: "move"; ids: ReadonlySet<string>; alone: string | null }
  | { type: "resize"; ids: ReadonlySet<string>; held: Held }
  | { type: "marquee"; before: readonly string[] }
);

/** What a gesture would do if it ended now. */
export interface Preview {
  /** Where the hand's own tiles would land. */
  landing: Place[];
  /** Where all would stand. */
  places: Map<string, Place>;
  /** The tiles that follow the hand, where they do. */
  following: ReadonlySet<string>;
  /** The tile whose place would be exchanged. */
  swaps: string | null;
  rowHeight: number;
}

const EDGES: Record<string, Held> = {
  n: { top: true },
  s: { bottom: true },
  w: { left: true },
  e: { right: true },
  nw: { top: true, left: true },
  ne: { top: true, right: true },
  sw: { bottom: true, left: true },
  se: { bottom: true, right: true },
};

const byId = (places: Place[]) => new Map(places.map((p) => [p.id, p]));

/** The tile in whose middle a point lies, so that a drop there means that tile. */
function tileAt(tiles: readonly Tile[], { x, y }: Point, columns: number, rows: number): Tile | undefined {
  return tiles.find((t) => {
    const [across, down] = [(x / columns - t.x) / t.w, (y / rows - t.y) / t.h];
    return t.type !== "section" && across > 0.25 && across < 0.75 && down > 0.25 && down < 0.75;
  });
}

/**
 * Moves and resizes the tiles of a board by pointer, selects them by a stretch drawn around them, and says
 * what would become of the others meanwhile.
 */
export function useArrangeGestures({
  tiles,
  grid,
  region,
  scale,
  selected,
  onSelect,
  onPlace,
}: {
  tiles: readonly Tile[];
  grid: RefObject<HTMLElement | null>;
  /** What scrolls. */
  region: RefObject<HTMLElement | null>;
  /** So many pixels of the screen is one of the board. */
  scale: number;
  selected: readonly string[];
  onSelect: (ids: string[]) => void;
  onPlace: (places: Place[], moved: string[]) => void;
}) {
  const gesture = useRef<Gesture | null>(null);
  const [preview, setPreview] = useState<Preview | null>(null);
  const [marquee, setMarquee] = useState<Stretch | null>(null);
  const shown = useRef<{ text: string; landing: Place[] } | null>(null);
  /** The tiles that were moved under the hand. */
  const followed = useRef(new Set<string>());

  const point = (event: { clientX: number; clientY: number }): Point => {
    const { left, top } = grid.current?.getBoundingClientRect() ?? { left: 0, top: 0 };
    return { x: (event.clientX - left) / scale, y: (event.clientY - top) / scale };
  };
  const columnWidth = () => ((grid.current?.clientWidth ?? 0) + GAP) / COLUMNS;
  const elementOf = (id: string) =>
    grid.current?.querySelector<HTMLElement>(`[data-tile="${CSS.escape(id)}"]`);

  const end = () => {
    // What lies in a section follows the hand too.
    for (const id of followed.current) {
      const element = elementOf(id);
      if (element) element.style.translate = "";
    }
    followed.current.clear();
    gesture.current = null;
    shown.current = null;
    setPreview(null);
    setMarquee(null);
  };
  const cancel = useRef(end);
  useEffect(() => {
    cancel.current = end;
  });
  useEffect(() => {
    const byEscape = (event: globalThis.KeyboardEvent) => {
      if (event.key !== "Escape" || !gesture.current?.isUnderWay) return;
      event.preventDefault();
      cancel.current();
    };
    window.addEventListener("keydown", byEscape, true);
    return () => window.removeEventListener("keydown", byEscape, true);
  }, []);

  /** What follows where the pointer is now. */
  const previewAt = (now: Exclude<Gesture, { type: "marquee" }>, at: Point): Preview => {
    const width = columnWidth();
    const by = {
      columns: Math.round((at.x - now.start.x) / width),
      rows: Math.round((at.y - now.start.y) / now.rowHeight),
    };
    const { base, rowHeight } = now;
    if (now.type === "resize") {
      const landing = resizedPlaces(base, now.ids, now.held, by);
      const places = byId(makeRoom(base, landing));
      return { landing, places, following: new Set(), swaps: null, rowHeight };
    }
    const others = base.filter((t) => !now.ids.has(t.id));
    const under = now.alone === null ? undefined : tileAt(others, at, width, rowHeight);
    const landing =
      under && now.alone ? swappedPlaces(base, now.alone, under.id) : movedPlaces(base, now.ids, by);
    return {
      landing,
      places: byId(makeRoom(base, landing)),
      following: new Set(landing.map((p) => p.id).filter((id) => id !== under?.id)),
      swaps: under?.id ?? null,
      rowHeight,
    };
  };

  const show = (next: Preview) => {
    const text = JSON.stringify([next.landing, next.swaps]);
    if (text === shown.current?.text) return;
    shown.current = { text, landing: next.landing };
    setPreview(next);
  };

  const scrollOnward = ({ clientY }: PointerEvent) => {
    const box = region.current?.getBoundingClientRect();
    if (!box) return;
    if (clientY > box.bottom - NEAR) region.current?.scrollBy(0, ONWARD);
    else if (clientY < box.top + NEAR) region.current?.scrollBy(0, -ONWARD);
  };

  const within = ({ x, y, width, height }: Stretch, base: readonly Tile[], rowHeight: number) => {
    const column = columnWidth();
    return base
      .filter(
        (t) =>
          t.x * column < x + width &&
          x < (t.x + t.w) * column - GAP &&
          t.y * rowHeight < y + height &&
          y < (t.y + t.h) * rowHeight - GAP,
      )
      .map((t) => t.id);
  };

  return {
    preview,
    marquee,
    onPointerDown: (event: PointerEvent<HTMLElement>) => {
      const target = event.target as Element;
      if (event.button !== 0 || !grid.current || target.closest(".no-drag")) return;
      const id = target.closest<HTMLElement>("[data-tile]")?.dataset.tile;
      const common = {
        start: point(event),
        pressed: { x: event.clientX, y: event.clientY },
        base: tiles,
        rowHeight: grid.current.clientHeight / Math.max(1, rowsOf(tiles)),
        isUnderWay: false,
      };
      const isMore = event.shiftKey || event.ctrlKey || event.metaKey;
      if (id === undefined) {
        if (!isMore) onSelect([]);
        gesture.current = { ...common, type: "marquee", before: isMore ? selected : [] };
      } else if (isMore) {
        onSelect(selected.includes(id) ? selected.filter((s) => s !== id) : [...selected, id]);
        return;
      } else {
        const ids = selected.includes(id) ? selected : [id];
        if (ids !== selected) onSelect([id]);
        const edge = target.closest<HTMLElement>("[data-edge]")?.dataset.edge;
        const isSection = tiles.find((t) => t.id === id)?.type === "section";
        gesture.current = edge
          ? { ...common, type: "resize", ids: new Set(ids), held: EDGES[edge] }
          : { ...common, type: "move", ids: new Set(ids), alone: ids.length === 1 && !isSection ? id : null };
      }
      grid.current.setPointerCapture(event.pointerId);
    },
    onPointerMove: (event: PointerEvent<HTMLElement>) => {
      const { current } = gesture;
      if (!current) return;
      const { x, y } = current.pressed;
      if (!current.isUnderWay && Math.hypot(event.clientX - x, event.clientY - y) < STILL) return;
      current.isUnderWay = true;
      scrollOnward(event);
      const at = point(event);
      if (current.type === "marquee") {
        const stretch = {
          x: Math.min(at.x, current.start.x),
          y: Math.min(at.y, current.start.y),
          width: Math.abs(at.x - current.start.x),
          height: Math.abs(at.y - current.start.y),
        };
        setMarquee(stretch);
        const hit = within(stretch, current.base, current.rowHeight);
        onSelect([...current.before, ...hit.filter((id) => !current.before.includes(id))]);
        return;
      }
      const next = previewAt(current, at);
      for (const id of next.following) {
        followed.current.add(id);
        const element = elementOf(id);
        if (element) element.style.translate = `${at.x - current.start.x}px ${at.y - current.start.y}px`;
      }
      show(next);
    },
    onPointerUp: () => {
      const { current } = gesture;
      if (current?.isUnderWay && current.type !== "marquee" && shown.current) {
        // What is dropped lands where it was seen to, wherever the pointer has slipped meanwhile.
        const { landing } = shown.current;
        const isElsewhere = landing.some((p) => {
          const was = current.base.find((t) => t.id === p.id);
          return !was || was.x !== p.x || was.y !== p.y || was.w !== p.w || was.h !== p.h;
        });
        if (isElsewhere) onPlace(landing, [...current.ids]);
      }
      end();
    },
    onPointerCancel: end,
  };
}

const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};
/** So many rows at once where Ctrl is held. */
const MANY_ROWS = 7;

/**
 * Moves and resizes tiles by arrow keys: presses that follow each other are one gesture, from where all stood
 * at first, so that what a tile passes goes back to its place.
 */
export function useArrangeKeys(
  tiles: readonly Tile[],
  onPlace: (places: Place[], moved: string[], group: string) => void,
) {
  const gesture = useRef<{
    base: readonly Tile[];
    ids: ReadonlySet<string>;
    resizes: boolean;
    columns: number;
    rows: number;
    name: string;
  } | null>(null);
  const count = useRef(0);
  return {
    /** Whether the key was an arrow, and did something. */
    press: (event: KeyboardEvent, ids: readonly string[]): boolean => {
      const arrow = ARROWS[event.key];
      if (!arrow) {
        if (!["Shift", "Control", "Meta"].includes(event.key)) gesture.current = null;
        return false;
      }
      const now = gesture.current;
      const isSame =
        now?.resizes === event.shiftKey && now.ids.size === ids.length && ids.every((id) => now.ids.has(id));
      const current = isSame
        ? now
        : {
            base: tiles,
            ids: new Set(ids),
            resizes: event.shiftKey,
            columns: 0,
            rows: 0,
            name: `arrange ${++count.current}`,
          };
      gesture.current = current;
      current.columns += arrow[0];
      current.rows += arrow[1] * (event.ctrlKey || event.metaKey ? MANY_ROWS : 1);
      const places = current.resizes
        ? resizedPlaces(current.base, current.ids, { right: true, bottom: true }, current)
        : movedPlaces(current.base, current.ids, current);
      // What cannot go further does not remember how often it was asked to.
      const [first] = places;
      const from = current.base.find((t) => t.id === first?.id);
      if (first && from) {
        current.columns = current.resizes ? first.w - from.w : first.x - from.x;
        current.rows = current.resizes ? first.h - from.h : first.y - from.y;
      }
      onPlace(makeRoom(current.base, places), [...current.ids], current.name);
      return true;
    },
    stop: () => {
      gesture.current = null;
    },
  };
}
