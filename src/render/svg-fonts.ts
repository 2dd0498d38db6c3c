import { readFileSync } from "node:fs";
import { join } from "node:path";
import { familyOf } from "@/core/scene/families";
import { type Scene, textsOf } from "@/core/scene/marks";
import { slicesFor } from "./font-slices";

/** The signs of the second subset of the shipped families: all that is Latin and not in the first. */
const IS_EXTENDED = /[\u0100-\u02ba\u1e00-\u1eff]/;
const LICENCE =
  "Fonts under the SIL Open Font License 1.1 (https://openfontlicense.org): Archivo, Source Serif, Barlow, " +
  "Nunito, Noto Sans.";

/** One rule of CSS that carries a font file in itself. */
const rule = (name: string, weight: string, bytes: Buffer, range?: string): string =>
  `@font-face{font-family:'${name}';font-weight:${weight};` +
  `src:url(data:font/woff2;base64,${bytes.toString("base64")}) format('woff2');` +
  `${range ? `unicode-range:${range};` : ""}}`;

const hex = (code: number) => code.toString(16);

/**
 * The rules of CSS that carry the fonts of a scene's texts, for an SVG that is seen where they are not
 * installed: the cuts it uses, and the slices of other scripts. `root` is the folder that holds public/fonts
 * and assets/fonts.
 */
export function fontsOf(scene: Scene, root: string): string {
  const folder = join(root, "public", "fonts");
  const family = familyOf(scene.family);
  const texts = textsOf(scene);
  const weights = new Set(scene.marks.flatMap((m) => (m.type === "text" ? [m.weight] : [])));
  const subsets = IS_EXTENDED.test(texts.join("")) ? ["latin-ext", "latin"] : ["latin"];
  const read = (name: string) => readFileSync(join(folder, `${name}.woff2`));
  const own = [...weights].flatMap((weight) =>
    subsets.map((subset) =>
      rule(
        family.name,
        String(weight),
        read(`${family.file}-${subset}-${weight}`),
        subset === "latin-ext" ? "U+100-2BA,U+1E00-1EFF" : undefined,
      ),
    ),
  );
  const others = slicesFor(texts, join(root, "assets", "fonts", "other")).map((slice) =>
    rule(
      slice.family,
      "100 900",
      read(slice.name),
      slice.spans.map(([from, to]) => `U+${hex(from)}-${hex(to)}`).join(","),
    ),
  );
  return [`/* ${LICENCE} */`, ...own, ...others].join("\n");
}
