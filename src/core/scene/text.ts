import metrics from "./font-metrics.json";

export type Weight = 400 | 500 | 600 | 700;
/** Text in visuals never gets smaller than this. */
export const SMALLEST = 9;
export const LINE_HEIGHT = 1.2;

const widthsOf: Record<Weight, Map<number, number>> = { 400: table("400"), 500: table("500"), 600: table("600"), 700: table("700") };

function table(weight: keyof typeof metrics.widths): Map<number, number> {
  const map = new Map<number, number>();
  let i = 0;
  for (const [from, to] of metrics.ranges) for (let code = from; code <= to; code++) map.set(code, metrics.widths[weight][i++]);
  return map;
}

/** Width of a character that the font lacks, in thousandths of the size: a full square for ideographs, else a wide letter. */
function foreignWidth(code: number): number {
  if ((code >= 0x300 && code <= 0x36f) || code === 0x200b || (code >= 0xfe00 && code <= 0xfe0f)) return 0;
  return code >= 0x1100 ? 1020 : 640;
}

/** Width of a text in pixels, from the shipped font's advance widths (kerning is not counted). */
export function textWidth(text: string, size: number, weight: Weight): number {
  let units = 0;
  const widths = widthsOf[weight];
  for (const char of text) {
    const code = char.codePointAt(0) as number;
    units += widths.get(code) || foreignWidth(code);
  }
  return (units * size) / 1000;
}

/** The text cut to a width with an ellipsis; an empty text when not even one letter fits. */
export function shorten(text: string, width: number, size: number, weight: Weight): string {
  // A width that was computed from the text itself must not cut it by a rounding error.
  if (textWidth(text, size, weight) <= width + 0.01) return text;
  const chars = [...text];
  let [low, high] = [0, chars.length];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (textWidth(`${chars.slice(0, middle).join("").trimEnd()}…`, size, weight) <= width) low = middle;
    else high = middle - 1;
  }
  return low === 0 ? "" : `${chars.slice(0, low).join("").trimEnd()}…`;
}

/** Breaks a text into at most `lines` lines of a width; what does not fit ends in an ellipsis. */
export function wrap(text: string, width: number, size: number, weight: Weight, lines: number): string[] {
  const words = text.split(/\s+/).filter(Boolean);
  const out: string[] = [];
  for (let i = 0; i < words.length; ) {
    if (out.length === lines - 1) {
      out.push(shorten(words.slice(i).join(" "), width, size, weight));
      break;
    }
    let line = words[i++];
    while (i < words.length && textWidth(`${line} ${words[i]}`, size, weight) <= width) line += ` ${words[i++]}`;
    out.push(shorten(line, width, size, weight));
  }
  return out.filter((line) => line !== "");
}

/** The largest size from `size` down to the floor at which a text fits a width; null when it does not fit at the floor. */
export function fittingSize(text: string, width: number, size: number, weight: Weight): number | null {
  const needed = textWidth(text, size, weight);
  if (needed <= width) return size;
  const scaled = Math.floor(((size * width) / needed) * 4) / 4;
  return scaled >= SMALLEST ? scaled : null;
}
