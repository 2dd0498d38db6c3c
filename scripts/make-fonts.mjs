// Turns the static cuts of the shipped type families into TTF files for PNG export, and their advance widths
// into a table for text measuring. Run once by hand after a font update; the results are committed.
import { mkdir, readFile, rm, writeFile } from "node:fs/promises";
import { createRequire } from "node:module";
import * as fontkit from "fontkit";
import wawoff2 from "wawoff2";

const require = createRequire(import.meta.url);
const FAMILIES = {
  archivo: "archivo",
  "source serif": "source-serif-4",
  barlow: "barlow-condensed",
  nunito: "nunito",
};
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
const out = new URL("../assets/fonts/", import.meta.url);
await rm(out, { recursive: true, force: true });
await mkdir(out, { recursive: true });

async function ttf(file) {
  return Buffer.from(await wawoff2.decompress(await readFile(require.resolve(file))));
}

const families = {};
for (const [id, file] of Object.entries(FAMILIES)) {
  families[id] = {};
  for (const weight of WEIGHTS) {
    const fonts = [];
    for (const subset of SUBSETS) {
      const cut = await ttf(`@fontsource/${file}/files/${file}-${subset}-${weight}-normal.woff2`);
      await writeFile(new URL(`${file}-${subset}-${weight}.ttf`, out), cut);
      fonts.push(fontkit.create(cut));
    }
    families[id][weight] = RANGES.flatMap(([from, to]) =>
      Array.from({ length: to - from + 1 }, (_, i) => {
        const font = fonts.find((f) => f.hasGlyphForCodePoint(from + i));
        return font
          ? Math.round((font.glyphForCodePoint(from + i).advanceWidth / font.unitsPerEm) * 1000)
          : 0;
      }),
    );
  }
}
/**
 * Widths written short, since pages carry them: of a letter with an accent what it differs in from the letter
 * without, and of a weight what it differs in from the one before (src/core/scene/text.ts reads it back).
 */
function short(byWeight) {
  const codes = RANGES.flatMap(([from, to]) => Array.from({ length: to - from + 1 }, (_, i) => from + i));
  const fromBase = WEIGHTS.map((weight) =>
    byWeight[weight].map((width, i) => {
      const base = codes.indexOf(String.fromCodePoint(codes[i]).normalize("NFD").codePointAt(0));
      return base >= 0 && base < i ? width - byWeight[weight][base] : width;
    }),
  );
  return fromBase.map((list, w) => (w === 0 ? list : list.map((width, i) => width - fromBase[w - 1][i])));
}

await writeFile(
  new URL("../src/core/scene/font-metrics.json", import.meta.url),
  `${JSON.stringify({
    ranges: RANGES,
    families: Object.fromEntries(Object.entries(families).map(([id, widths]) => [id, short(widths)])),
  })}\n`,
);
