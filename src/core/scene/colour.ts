import {
  formatHex,
  interpolate,
  modeLrgb,
  modeOklab,
  modeRgb,
  useMode as register,
  wcagContrast,
} from "culori/fn";

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
  other: string;
}

/** The colours of the two sheets that visuals are drawn on. */
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
    other: "#7d7a70",
  },
};

/** The theme for a sheet of any colour: the inks are those that read on it. */
export function themeOn(sheet: string): Theme {
  const base = THEMES[wcagContrast(sheet, "#ffffff") > wcagContrast(sheet, "#000000") ? "night" : "light"];
  const ink = textOn(sheet);
  const quiet = mix(ink, sheet, 0.25);
  const muted = wcagContrast(quiet, sheet) >= 4.5 ? quiet : ink;
  const signal = wcagContrast(base.signal, sheet) >= 4.5 ? base.signal : ink;
  return { ...base, sheet, ink, muted, signal, rule: mix(sheet, ink, 0.16), track: mix(sheet, ink, 0.12) };
}

/** Remembers what a function of colours gave: scenes ask for the same few colours over and over. */
function remembered<A extends (string | number)[], R>(compute: (...args: A) => R): (...args: A) => R {
  const known = new Map<string, R>();
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

/**
 * White, ink or black, the first that reads on a colour (4.5:1); for several colours under one text, the one
 * that reads best on the worst of them.
 */
export const textOn = remembered((...fills: string[]) => {
  const worst = (ink: string) => Math.min(...fills.map((f) => contrast(f, ink)));
  const inks = ["#ffffff", "#1c2b2d", "#000000"];
  return inks.find((ink) => worst(ink) >= 4.5) ?? inks.reduce((a, b) => (worst(b) > worst(a) ? b : a));
});

/** WCAG 2 contrast ratio of two colours, 1 to 21. */
export const contrast = remembered((a: string, b: string): number => wcagContrast(a, b));

/** A colour between two, mixed in OKLab. */
export const mix = remembered((a: string, b: string, share: number) =>
  formatHex(interpolate([a, b], "oklab")(share)),
);

/** A colour of any form as #rrggbb. */
export const toHex = (colour: Parameters<typeof formatHex>[0]): string => formatHex(colour) ?? "#000000";

/** Whether a text is a colour we can draw with: #rgb or #rrggbb. */
export function isColour(text: string): boolean {
  return /^#([0-9a-f]{3}|[0-9a-f]{6})$/i.test(text);
}
