import { familyOf } from "@/core/scene/families";
import type { Scene } from "@/core/scene/marks";
import { sceneToSvg } from "@/render/svg-text";
import { EmbedError } from "./embed-error";
import { places } from "./places";

async function asData(address: string): Promise<string> {
  const response = await fetch(address);
  if (!response.ok) throw new Error(`status ${response.status}`);
  const bytes = new Uint8Array(await response.arrayBuffer());
  let text = "";
  for (let i = 0; i < bytes.length; i += 0x8000)
    text += String.fromCharCode(...bytes.subarray(i, i + 0x8000));
  return `data:font/woff2;base64,${btoa(text)}`;
}

/** The rules that carry the cuts which a scene is written in: an image sees nothing of the page's fonts. */
async function rulesFor(family: string, weights: Iterable<number>): Promise<string> {
  const { name, file } = familyOf(family);
  // A family that the page brings is in its own hands.
  if (file === "") return "";
  const rules = [...weights].flatMap((weight) =>
    [
      ["latin", "U+0-FF,U+2000-22FF,U+25A0-25FF"],
      ["latin-ext", "U+100-2BA,U+1E00-1EFF"],
    ].map(
      async ([subset, range]) =>
        `@font-face{font-family:'${name}';font-weight:${weight};unicode-range:${range};src:url(${await asData(places.font(`${file}-${subset}-${weight}.woff2`))})}`,
    ),
  );
  const settled = await Promise.allSettled(rules);
  return settled.flatMap((r) => (r.status === "fulfilled" ? r.value : [])).join("");
}

/**
 * A scene as a PNG at so many pixels a point, drawn by the browser. Rejects with an EmbedError
 * where the page's
 * policy allows no images from data addresses.
 */
export async function pngOf(scene: Scene, scale: number): Promise<Blob> {
  const weights = new Set(scene.marks.flatMap((m) => (m.type === "text" ? [m.weight] : [])));
  const svg = sceneToSvg(scene, { style: await rulesFor(scene.family, weights) });
  return drawn(svg, scene, scale);
}

/** The same of an SVG whose texts are of some families, in every weight. */
export async function pngOfSvg(
  svg: SVGElement,
  size: { width: number; height: number },
  families: string[],
  scale: number,
): Promise<Blob> {
  const style = document.createElementNS("http://www.w3.org/2000/svg", "style");
  style.textContent = (await Promise.all(families.map((f) => rulesFor(f, WEIGHTS)))).join("");
  svg.prepend(style);
  return drawn(new XMLSerializer().serializeToString(svg), size, scale);
}

const WEIGHTS = [400, 500, 600, 700];

async function drawn(svg: string, size: { width: number; height: number }, scale: number): Promise<Blob> {
  const k = Math.max(0.1, Math.min(8, scale));
  const image = new Image();
  image.src = `data:image/svg+xml,${encodeURIComponent(svg)}`;
  try {
    await image.decode();
  } catch {
    throw new EmbedError(
      "engine",
      "The picture cannot be drawn: the page's policy needs img-src data: for it.",
    );
  }
  const canvas = document.createElement("canvas");
  canvas.width = Math.round(size.width * k);
  canvas.height = Math.round(size.height * k);
  canvas.getContext("2d")?.drawImage(image, 0, 0, canvas.width, canvas.height);
  return new Promise((resolve, reject) =>
    canvas.toBlob(
      (blob) =>
        blob ? resolve(blob) : reject(new EmbedError("engine", "The picture is too large to be drawn.")),
      "image/png",
    ),
  );
}
