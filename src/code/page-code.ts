import type { Scene } from "@/core/scene/marks";
import { sceneToSvg } from "@/render/svg-text";

/**
 * A scene as plain HTML: a figure with its SVG, which is as wide as there is room for, and whose marks can be
 * styled by their classes and read by their data.
 */
export function pageCode(scene: Scene, name: string): string {
  const svg = sceneToSvg(scene, { title: name, prefix: "v-" });
  // An element a line; texts stand between their own tags.
  const lines = svg
    .replace("<svg ", `<svg style="width: 100%; height: auto" `)
    .split(/(?<=>)(?=<)/)
    .map((line) => `  ${line}`)
    .join("\n");
  return `<figure style="max-width: ${scene.width}px; margin: 0">
${lines}
</figure>
`;
}
