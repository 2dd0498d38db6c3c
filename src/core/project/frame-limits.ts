/** The smallest and the largest frame of a visual, in pixels. */
export const FRAME_LIMITS = { width: { least: 96, most: 1600 }, height: { least: 72, most: 900 } } as const;

/** Why `text` is no length of a frame along `side`, in words, or `null` when it is one. */
export function frameProblem(side: keyof typeof FRAME_LIMITS, text: string): string | null {
  const { least, most } = FRAME_LIMITS[side];
  return Number(text) >= least && Number(text) <= most ? null : `From ${least} to ${most}.`;
}
