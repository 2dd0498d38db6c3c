import { join } from "node:path";
import { Resvg } from "@resvg/resvg-js";
import { familyOf } from "@/core/scene/families";
import { type Scene, textsOf } from "@/core/scene/marks";
import { slicesFor } from "./font-slices";
import { sceneToSvg } from "./svg-text";

const SUBSETS = ["latin", "latin-ext"];
const WEIGHTS = [400, 500, 600, 700];

const FOLDER = join("assets", "fonts");

/**
 * The scene as PNG bytes, at `scale` pixels for each of its own. `root` is the folder that holds
 * assets/fonts.
 */
export function sceneToPng(scene: Scene, scale: number, root: string): Buffer {
  const folder = join(root, FOLDER);
  const family = familyOf(scene.family);
  const cuts = new Set(scene.marks.flatMap((m) => (m.type === "text" ? [m.weight] : [])));
  const fontFiles = [
    ...SUBSETS.flatMap((subset) =>
      WEIGHTS.filter((w) => cuts.has(w as 400)).map((weight) =>
        join(folder, `${family.file}-${subset}-${weight}.ttf`),
      ),
    ),
    // Where the families lack a sign, the first of these files that has it is taken.
    ...slicesFor(textsOf(scene), join(folder, "other")).map((s) => join(folder, "other", `${s.name}.ttf`)),
  ];
  const image = new Resvg(sceneToSvg(scene), {
    fitTo: { mode: "zoom", value: scale },
    font: {
      fontFiles,
      loadSystemFonts: false,
      defaultFontFamily: family.name,
      serifFamily: family.name,
      sansSerifFamily: family.name,
    },
  });
  return image.render().asPng();
}
