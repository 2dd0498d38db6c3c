/** Marks what holds a field whose text is not taken yet, for `stayForField`. */
export const unsaved = (isUnsaved: boolean) => (isUnsaved ? { "data-unsaved": "" } : {});

/**
 * Escape in a field whose text is not taken yet gives the old text back; the popover or dialog that it stands
 * in stays open.
 */
export function stayForField(event: KeyboardEvent): void {
  if (document.activeElement?.closest("[data-unsaved]")) event.preventDefault();
}
