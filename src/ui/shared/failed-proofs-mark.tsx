"use client";
import { useFailedProofs } from "./proofs";

/** How many proofs fail, beside the step on which they are mended; nothing while all hold. */
export function FailedProofsMark() {
  const failed = useFailedProofs();
  if (failed.length === 0) return null;
  const said = `${failed.length} ${failed.length === 1 ? "test fails" : "tests fail"}`;
  return (
    <span
      role="img"
      aria-label={said}
      title={said}
      className="grid h-4 min-w-4 place-items-center rounded-full bg-signal px-1 text-xs leading-none font-semibold text-sheet"
    >
      {failed.length}
    </span>
  );
}
