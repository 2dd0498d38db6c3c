// Writes the advance widths of a type family of one's own as JSON, so that elements measure their texts in
// it:
//   node scripts/make-widths.mjs "My Sans" 400=MySans-Regular.woff2 700=MySans-Bold.ttf > my-sans.json
// A page then calls registerFamily(widths) of cavlo.js and sets family="My Sans"; the fonts themselves are its own.
import { readFileSync } from "node:fs";
import * as fontkit from "fontkit";
import wawoff2 from "wawoff2";

/** The signs that are measured: Latin with its extensions, Greek, Cyrillic, marks, arrows and shapes. */
const RANGES = [
  [0x20, 0x7e],
  [0xa0, 0x24f],
  [0x370, 0x52f],
  [0x1e00, 0x1eff],
  [0x2009, 0x203a],
  [0x20a0, 0x20bf],
  [0x2122, 0x2122],
  [0x2190, 0x2193],
  [0x2212, 0x2212],
  [0x2248, 0x2265],
  [0x25b2, 0x25bc],
];

const [name, ...cuts] = process.argv.slice(2);
if (!name || cuts.length === 0 || !cuts.every((cut) => /^[1-9]00=./.test(cut))) {
  console.error(
    'Say the name and its cuts: node scripts/make-widths.mjs "My Sans" 400=Regular.ttf 700=Bold.woff2',
  );
  process.exit(2);
}
const widths = {};
for (const cut of cuts) {
  const [weight, path] = [cut.slice(0, 3), cut.slice(4)];
  const bytes = readFileSync(path);
  const isPacked = bytes.subarray(0, 4).toString("latin1") === "wOF2";
  const font = fontkit.create(isPacked ? Buffer.from(await wawoff2.decompress(bytes)) : bytes);
  widths[weight] = RANGES.flatMap(([from, to]) =>
    Array.from({ length: to - from + 1 }, (_, i) =>
      font.hasGlyphForCodePoint(from + i)
        ? Math.round((font.glyphForCodePoint(from + i).advanceWidth / font.unitsPerEm) * 1000)
        : 0,
    ),
  );
}
process.stdout.write(`${JSON.stringify({ name, ranges: RANGES, widths })}\n`);
