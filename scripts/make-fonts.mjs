// Turns the shipped fonts' static cuts into TTF files for PNG export, and their advance widths into a table
// for text measuring. Run once by hand after a font update; both results are committed.
import { readFile, writeFile } from "node:fs/promises";
import { createRequire } from "node:module";
import * as fontkit from "fontkit";
import wawoff2 from "wawoff2";

const require = createRequire(import.meta.url);
const WEIGHTS = [400, 500, 600, 700];
const SUBSETS = ["latin", "latin-ext"];
const RANGES = [
  [0x20, 0x7e],
  [0xa0, 0x17f],
  [0x192, 0x192],
  [0x218, 0x21b],
  [0x2009, 0x2026],
  [0x202f, 0x203a],
  [0x20ac, 0x20ac],
  [0x2122, 0x2122],
  [0x2190, 0x2193],
  [0x2212, 0x2212],
  [0x2248, 0x2265],
  [0x25b2, 0x25bc],
];

const widths = {};
for (const weight of WEIGHTS) {
  const fonts = [];
  for (const subset of SUBSETS) {
    const woff2 = await readFile(require.resolve(`@fontsource/archivo/files/archivo-${subset}-${weight}-normal.woff2`));
    const ttf = Buffer.from(await wawoff2.decompress(woff2));
    await writeFile(new URL(`../assets/fonts/archivo-${subset}-${weight}.ttf`, import.meta.url), ttf);
    fonts.push(fontkit.create(ttf));
  }
  widths[weight] = RANGES.flatMap(([from, to]) =>
    Array.from({ length: to - from + 1 }, (_, i) => {
      const font = fonts.find((f) => f.hasGlyphForCodePoint(from + i));
      return font ? Math.round((font.glyphForCodePoint(from + i).advanceWidth / font.unitsPerEm) * 1000) : 0;
    }),
  );
}
await writeFile(new URL("../src/core/scene/font-metrics.json", import.meta.url), `${JSON.stringify({ ranges: RANGES, widths })}\n`);
