import type { Scene } from "@/core/scene/marks";
import { type SvgNode, type SvgOptions, sceneTree } from "./svg-tree";

const ESCAPES: Record<string, string> = {
  "&": "&amp;",
  "<": "&lt;",
  ">": "&gt;",
  '"': "&quot;",
  "'": "&#39;",
};

/**
 * Text as XML can hold it: markup is escaped, half a character is mended, and control characters that XML
 * does not allow are left out.
 */
function escapeXml(text: string): string {
  // biome-ignore lint/suspicious/noControlCharactersInRegex: these are the characters to leave out
  const allowed = text.toWellFormed().replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, "");
  return allowed.replace(/[&<>"']/g, (c) => ESCAPES[c]);
}

function write(node: SvgNode): string {
  const attributes = Object.entries(node.attributes)
    .map(([name, value]) => ` ${name}="${escapeXml(String(value))}"`)
    .join("");
  const content = (node.text === undefined ? "" : escapeXml(node.text)) + node.children.map(write).join("");
  return content ? `<${node.tag}${attributes}>${content}</${node.tag}>` : `<${node.tag}${attributes}/>`;
}

/** The scene as an SVG document. */
export function sceneToSvg(scene: Scene, options?: SvgOptions): string {
  return write(sceneTree(scene, options));
}

/** A scene at its place on a page, in pixels of the page. */
export interface PlacedScene {
  x: number;
  y: number;
  scene: Scene;
}

/**
 * Several scenes on one page as an SVG document: `width` and `height` are what of the page is shown, drawn
 * `drawnWidth` pixels wide.
 */
export function scenesToSvg(
  scenes: PlacedScene[],
  { width, height, drawnWidth, title }: { width: number; height: number; drawnWidth: number; title: string },
): string {
  const placed = scenes.map(({ x, y, scene }, i): SvgNode => {
    const tree = sceneTree(scene, { prefix: `t${i}-` });
    return { ...tree, attributes: { ...tree.attributes, x, y } };
  });
  const drawnHeight = Math.round((drawnWidth * height) / width);
  return write({
    tag: "svg",
    attributes: {
      xmlns: "http://www.w3.org/2000/svg",
      width: drawnWidth,
      height: drawnHeight,
      viewBox: `0 0 ${width} ${height}`,
    },
    children: [{ tag: "title", attributes: {}, children: [], text: title }, ...placed],
  });
}
