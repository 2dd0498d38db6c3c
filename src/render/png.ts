import { readFileSync } from "node:fs";
import { join } from "node:path";
import { Resvg } from "@resvg/resvg-js";
import { familyOf } from "@/core/scene/families";
import type { Scene } from "@/core/scene/marks";
import { sceneToSvg } from "./svg-text";

const SUBSETS = ["latin", "latin-ext"];
const WEIGHTS = [400, 500, 600, 700];

interface Slice {
  file: string;
  spans: [number, number][];
}
let slices: Slice[] | null = null;

/** The files with the signs that the families lack: only those that some text needs. */
function otherScripts(scene: Scene, folder: string): string[] {
  const codes = new Set<number>();
  for (const mark of scene.marks)
    if (mark.type === "text") for (const char of mark.text) codes.add(char.codePointAt(0) as number);
  const foreign = [...codes].filter((c) => c >= 0x250 && (c < 0x2000 || c > 0x2bff));
  if (foreign.length === 0) return [];
  slices ??= JSON.parse(readFileSync(join(folder, "other", "slices.json"), "utf8")) as Slice[];
  return slices
    .filter((s) => s.spans.some(([from, to]) => foreign.some((c) => c >= from && c <= to)))
    .map((s) => join(folder, "other", s.file));
}

/**
 * The scene as PNG bytes, at `scale` pixels for each of its own. `root` is the folder that holds
 * assets/fonts.
 */
export function sceneToPng(scene: Scene, scale: number, root: string): Buffer {
  const folder = join(root, "assets", "fonts");
  const family = familyOf(scene.family);
  const cuts = new Set(scene.marks.flatMap((m) => (m.type === "text" ? [m.weight] : [])));
  const fontFiles = [
    ...SUBSETS.flatMap((subset) =>
      WEIGHTS.filter((w) => cuts.has(w as 400)).map((weight) =>
        join(folder, `${family.file}-${subset}-${weight}.ttf`),
      ),
    ),
    ...otherScripts(scene, folder),
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
