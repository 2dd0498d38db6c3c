import { formatHex, interpolate, modeLrgb, modeOklab, modeRgb, useMode as register, wcagContrast } from "culori/fn";

register(modeRgb);
register(modeLrgb);
register(modeOklab);

/** The colours a scene is drawn in. */
export interface Theme {
  name: "light" | "night";
  sheet: string;
  ink: string;
  muted: string;
  rule: string;
  track: string;
  signal: string;
  tones: { poor: string; watch: string; good: string; plain: string };
  categories: string[];
  other: string;
}

export const THEMES: Record<"light" | "night", Theme> = {
  light: {
    name: "light",
    sheet: "#fffdf8",
    ink: "#1c2b2d",
    muted: "#5e6c6b",
    rule: "#dcd6c8",
    track: "#e7e2d6",
    signal: "#c4452d",
    tones: { poor: "#e2a593", watch: "#ebcb8b", good: "#8dbfa9", plain: "#c9d3cf" },
    categories: ["#1f7a6d", "#c98a1b", "#7a3e76", "#3f6fb5", "#d9583b", "#6e8b3d", "#8a5a44", "#4f5d75"],
    other: "#a39c8c",
  },
  night: {
    name: "night",
    sheet: "#172123",
    ink: "#e9e4d8",
    muted: "#a3adaa",
    rule: "#2f3d3f",
    track: "#2c393b",
    signal: "#f0785f",
    tones: { poor: "#b4614d", watch: "#bd9440", good: "#4f9277", plain: "#5a6b69" },
    categories: ["#3fa894", "#dba543", "#b878b2", "#6f9bd8", "#ea7c62", "#94b15c", "#b98a72", "#8b9ab5"],
    other: "#7d7a70",
  },
};

/** Remembers what a function of colours gave: scenes ask for the same few colours over and over. */
function remembered<A extends (string | number)[]>(compute: (...args: A) => string): (...args: A) => string {
  const known = new Map<string, string>();
  return (...args) => {
    const key = args.join(" ");
    let found = known.get(key);
    if (found === undefined) {
      if (known.size > 2000) known.clear();
      found = compute(...args);
      known.set(key, found);
    }
    return found;
  };
}

/** Ink or paper, whichever is easier to read on a colour. */
export const textOn = remembered((fill: string) => (wcagContrast(fill, "#ffffff") >= wcagContrast(fill, "#1c2b2d") ? "#ffffff" : "#1c2b2d"));

/** WCAG 2 contrast ratio of two colours, 1 to 21. */
export function contrast(a: string, b: string): number {
  return wcagContrast(a, b);
}

/** The n-th colour of the categories; past the last the round begins again, lighter each time. */
export function categoryColour(theme: Theme, index: number): string {
  const base = theme.categories[index % theme.categories.length];
  const round = Math.floor(index / theme.categories.length);
  return round === 0 ? base : mix(base, theme.sheet, Math.min(0.6, round * 0.22));
}

/** A colour between two, mixed in OKLab. */
export const mix = remembered((a: string, b: string, share: number) => formatHex(interpolate([a, b], "oklab")(share)));

/** Whether a text is a colour we can draw with: #rgb or #rrggbb. */
export function isColour(text: string): boolean {
  return /^#([0-9a-f]{3}|[0-9a-f]{6})$/i.test(text);
}
