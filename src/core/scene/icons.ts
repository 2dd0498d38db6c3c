import icons from "./icons.json";

/**
 * Icons by name as path data in a box of 24, drawn in strokes (from Lucide, ISC licence;
 * `scripts/make-icons.mjs` took them over).
 */
export const ICONS: Record<string, string> = icons;
