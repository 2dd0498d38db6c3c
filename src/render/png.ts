import { join } from "node:path";
import { Resvg } from "@resvg/resvg-js";
import type { Scene } from "@/core/scene/marks";
import { sceneToSvg } from "./svg-text";

const SUBSETS = ["latin", "latin-ext"];
const WEIGHTS = [400, 500, 600, 700];

/** The scene as PNG bytes, at `scale` pixels for each of its own. `root` is the folder that holds assets/fonts. */
export function sceneToPng(scene: Scene, scale: number, root: string): Buffer {
  const fontFiles = SUBSETS.flatMap((subset) => WEIGHTS.map((weight) => join(root, "assets", "fonts", `archivo-${subset}-${weight}.ttf`)));
  const svg = sceneToSvg(scene).replace('font-family="Archivo Variable, Archivo, sans-serif"', 'font-family="Archivo"');
  const image = new Resvg(svg, { fitTo: { mode: "zoom", value: scale }, font: { fontFiles, loadSystemFonts: false, defaultFontFamily: "Archivo" } });
  return image.render().asPng();
}
