import type { CategoryOf, Datum, Focus, Scene } from "@/core/scene/marks";

/**
 * A picture in a page element that follows its scene: marks move to their new places when the data changes.
 */
export interface LivePicture {
  /** Draws the next state; `still` without any movement. */
  draw(scene: Scene, still: boolean): void;
  /** Shows a datum at a point as the pointer would; null hides what is shown. */
  tell(datum: Datum | null, x: number, y: number): void;
  /** The category of the mark that a page element draws; null where it draws none. */
  categoryAt?(target: EventTarget | null): CategoryOf | null;
  resize(width: number, height: number): void;
  dispose(): void;
}

/**
 * What a live picture tells: the row under the pointer (null when none), the part of the anatomy
 * there, and a pick of a category.
 */
export interface Listen {
  onFocus?: (focus: Focus | null) => void;
  onPart?: (part: string | null) => void;
  /** `more`: it joins what is picked already, as with a key held or by a long press. */
  onPick?: (picked: CategoryOf, more: boolean) => void;
  /** A double click on a category. */
  onEnter?: (picked: CategoryOf) => void;
}

/** Whether a key is held by which one more joins what is picked. */
export const wantsMore = ({ ctrlKey, metaKey, shiftKey }: MouseEvent | KeyboardEvent): boolean =>
  ctrlKey || metaKey || shiftKey;

/** Starts a live picture in a page element. */
export type StartPicture = (
  element: HTMLElement,
  size: { width: number; height: number },
  listen: Listen,
) => LivePicture;
