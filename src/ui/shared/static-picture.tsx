import { createElement, memo, type ReactNode, useId } from "react";
import type { Scene } from "@/core/scene/marks";
import { type SvgNode, sceneTree } from "@/render/svg-tree";

const CAMEL: Record<string, string> = {
  "font-size": "fontSize",
  "font-weight": "fontWeight",
  "font-variant": "fontVariant",
  "font-family": "fontFamily",
  "text-anchor": "textAnchor",
  "stroke-width": "strokeWidth",
  "stroke-linejoin": "strokeLinejoin",
  "fill-rule": "fillRule",
  "stop-color": "stopColor",
  "clip-path": "clipPath",
  "stroke-linecap": "strokeLinecap",
  "flood-color": "floodColor",
  "flood-opacity": "floodOpacity",
};

function element(node: SvgNode, key: number): ReactNode {
  const attributes = Object.fromEntries(
    Object.entries(node.attributes).map(([name, value]) => [CAMEL[name] ?? name, value]),
  );
  return createElement(node.tag, { key, ...attributes }, node.text, ...node.children.map(element));
}

/**
 * A scene drawn once, without interaction: thumbnails, trials and previews. It scales to the width
 * it is given.
 */
export const StaticPicture = memo(function StaticPicture({
  scene,
  label,
  className,
}: {
  scene: Scene;
  label: string;
  className?: string;
}) {
  const tree = sceneTree(scene, { prefix: useId().replace(/[^A-Za-z0-9]/g, "") });
  const { width: _width, height: _height, ...attributes } = tree.attributes;
  // Where the label is empty, the text beside the picture says it all.
  const named = label ? { "aria-label": label } : { role: undefined, "aria-hidden": true };
  return createElement(
    "svg",
    {
      ...attributes,
      ...named,
      className: `picture ${className ?? ""}`,
      fontFamily: attributes["font-family"],
      "font-family": undefined,
    },
    ...tree.children.map(element),
  );
});
