import { interpolate } from "culori/fn";
import { contrast, mix, THEMES, textOn, toHex } from "./colour";
import { colourDistance, leastDistance } from "./sight";

/**
 * A named set of colours. Categorical ones tell categories apart; sequential ones run from little to much;
 * diverging ones turn in the middle.
 */
export interface Palette {
  id: string;
  name: string;
  type: "categorical" | "sequential" | "diverging";
  light: string[];
  night: string[];
}

/**
 * Shipped palettes. The colours were found by search: near a wanted hue, 3:1 against the sheet, and as far
 * apart as can be under each colour-vision deficiency.
 */
export const PALETTES: Palette[] = [
  {
    id: "harbour",
    name: "Harbour",
    type: "categorical",
    light: ["#1f7a6d", "#c08a00", "#752f62", "#7666b0", "#dc5300", "#669575", "#8f4935", "#4c5291"],
    night: ["#3fa894", "#daa641", "#b073ca", "#5ab4f6", "#ec7672", "#98be8a", "#bd723f", "#929cc2"],
  },
  {
    id: "orchard",
    name: "Orchard",
    type: "categorical",
    light: ["#4b813f", "#dd5000", "#c68700", "#8d2d43", "#5c90a9", "#674d12", "#a25b96", "#2e4d5f"],
    night: ["#8cc06a", "#ffa3ad", "#ead06a", "#d46984", "#99d1e5", "#b18c5c", "#cd9cdd", "#6f9db2"],
  },
  {
    id: "lantern",
    name: "Lantern",
    type: "categorical",
    light: ["#3b4cc0", "#d74c24", "#2da092", "#c2236d", "#b38b1a", "#7179d8", "#5a2d2d", "#626974"],
    night: ["#8190f0", "#ec945e", "#4ac8bf", "#d46cbd", "#ddbb55", "#b3bff5", "#cd9997", "#77868c"],
  },
  {
    id: "tide",
    name: "Tide",
    type: "sequential",
    light: ["#9fcfc4", "#4ba08f", "#1f7a6d", "#0e463e"],
    night: ["#2f5f58", "#3fa894", "#7fd0bd", "#d2f3ea"],
  },
  {
    id: "dusk",
    name: "Dusk",
    type: "sequential",
    light: ["#d8bbd6", "#a779a3", "#753c70", "#41173f"],
    night: ["#5c3f5f", "#9a6aa0", "#cf9fd1", "#f6e2f5"],
  },
  {
    id: "ember",
    name: "Ember",
    type: "sequential",
    light: ["#efc088", "#dd8437", "#b4481c", "#6b1f12"],
    night: ["#7a4527", "#c8703a", "#f0a868", "#fde6c4"],
  },
  {
    id: "shoal",
    name: "Shoal",
    type: "diverging",
    light: ["#b8371c", "#e08a68", "#d9d2c2", "#5aa5b5", "#0f4c63"],
    night: ["#f0785f", "#a8563f", "#55605f", "#4fa3b8", "#a9dcea"],
  },
  {
    id: "heath",
    name: "Heath",
    type: "diverging",
    light: ["#8a4b00", "#c8913e", "#d6d1c6", "#8678b4", "#46328a"],
    night: ["#f2b45c", "#a67a3c", "#585f66", "#8d7fd0", "#cfc6ff"],
  },
];

/** A palette by its id: one of the project's own, or a shipped one, or the first of those. */
export function paletteOf(id: string, own: Palette[] = []): Palette {
  return own.find((p) => p.id === id) ?? PALETTES.find((p) => p.id === id) ?? PALETTES[0];
}

/** Categories past this many have no colours that tell them apart. */
export const MOST_COLOURS = 24;

const SHADES = [0.25, 0.45, 0.6];
/** Hues besides those of a palette, in OKLab by their lightness, chroma and angle in radians: where its own shades are too few to be told apart. */
const LIGHTNESS = [0.42, 0.5, 0.58, 0.65, 0.76, 0.86];
const CHROMA = [0.05, 0.1, 0.15];
const HUES = Array.from({ length: 15 }, (_, i) => (i * 2 * Math.PI) / 15);
/** Nearer to the ink or to the sheet than this (OKLab) a colour is read as none. */
const LEAST_FROM_INK = 0.2;
const LEAST_FROM_OTHER = 0.05;

type ThemeName = "light" | "night";
/** The colour that all categories past the last colour share. */
const sharedColour = (theme: ThemeName): string => mix(THEMES[theme].other, THEMES[theme].ink, 0.25);
/** By the colours of a palette (they are never changed in place) and the sheet. */
const extended = new WeakMap<readonly string[], Map<string, string[]>>();

/** What can come after the colours of a palette: shades of them, and other hues. */
function candidatesFor(colours: readonly string[], theme: ThemeName, sheet: string): string[] {
  const shades = colours.flatMap((base) =>
    SHADES.flatMap((share) => [mix(base, "#ffffff", share), mix(base, "#000000", share)]),
  );
  const hues = LIGHTNESS.flatMap((l) =>
    CHROMA.flatMap((c) =>
      HUES.map((h) => toHex({ mode: "oklab", l, a: c * Math.cos(h), b: c * Math.sin(h) })),
    ),
  );
  const ink = textOn(sheet);
  return [...shades, ...hues].filter(
    (colour) =>
      contrast(colour, sheet) >= 3 &&
      colourDistance(colour, ink) >= LEAST_FROM_INK &&
      // That of Other, and the one that all further categories share, stand for something else.
      [THEMES[theme].other, sharedColour(theme)].every((c) => colourDistance(colour, c) >= LEAST_FROM_OTHER),
  );
}

/**
 * The colours of a categorical palette, and more up to `MOST_COLOURS`: each time the one that is farthest
 * (OKLab, for whoever sees it nearest: see `leastDistance`) from all taken before it, among those that stand
 * out from the sheet by 3:1.
 */
function withShades(colours: readonly string[], theme: ThemeName, sheet: string): string[] {
  const bySheet = extended.get(colours) ?? new Map<string, string[]>();
  extended.set(colours, bySheet);
  const known = bySheet.get(sheet);
  if (known) return known;
  const free = candidatesFor(colours, theme, sheet);
  const taken = [...colours];
  const distances = free.map((shade) => Math.min(...taken.map((c) => leastDistance(c, shade))));
  while (taken.length < MOST_COLOURS) {
    const farthest = distances.indexOf(Math.max(...distances));
    if (farthest < 0 || distances[farthest] <= 0.02) break;
    const next = free[farthest];
    taken.push(next);
    for (const [i, shade] of free.entries())
      distances[i] = Math.min(distances[i], leastDistance(next, shade));
  }
  if (bySheet.size > 20) bySheet.clear();
  bySheet.set(sheet, taken);
  return taken;
}

/**
 * The n-th colour of a palette; past the last come shades of them, and past those one colour that all
 * further ones share: nearer to the ink than that of Other, for which none of them is to be taken. Ramps give
 * evenly spread steps among `count`.
 */
export function paletteColour(
  palette: Palette,
  theme: "light" | "night",
  index: number,
  count: number,
  sheet: string,
): string {
  const colours = palette[theme];
  if (palette.type !== "categorical")
    return rampColour(palette, theme, count <= 1 ? 0.7 : 1 - index / (count - 1));
  if (index < colours.length) return colours[index];
  return withShades(colours, theme, sheet)[index] ?? sharedColour(theme);
}

const ramps = new Map<string, (share: number) => string>();

/**
 * The colour at a share (0 to 1) of a ramp, mixed in OKLab. A categorical palette runs from a pale form of
 * its first colour to a deep one.
 */
export function rampColour(palette: Palette, theme: "light" | "night", share: number): string {
  const colours = palette.type === "categorical" ? firstAsRamp(palette[theme][0], theme) : palette[theme];
  const key = colours.join();
  let ramp = ramps.get(key);
  if (!ramp) {
    const mixed = interpolate(colours, "oklab");
    ramp = (at) => toHex(mixed(at));
    if (ramps.size > 200) ramps.clear();
    ramps.set(key, ramp);
  }
  return ramp(Math.min(1, Math.max(0, share)));
}

function firstAsRamp(base: string, theme: "light" | "night"): string[] {
  return theme === "light"
    ? [mix(base, "#ffffff", 0.5), base, mix(base, "#000000", 0.45)]
    : [mix(base, "#101819", 0.5), base, mix(base, "#ffffff", 0.6)];
}
