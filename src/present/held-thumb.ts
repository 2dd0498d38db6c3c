/**
 * Whether a thumb is being turned: then it is ahead of the board. Focus does not tell, since a thumb keeps it
 * when it is let go, and has to follow who goes back.
 */
export function heldThumb(field: HTMLInputElement): () => boolean {
  let isHeld = false;
  field.addEventListener("input", () => (isHeld = true), { capture: true });
  for (const end of ["change", "blur", "pointerup", "pointercancel"])
    field.addEventListener(end, () => (isHeld = false), { capture: true });
  return () => isHeld;
}
