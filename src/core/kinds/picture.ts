import type { Result } from "../engine/query";
import type { Value } from "../formula/value";
import type { Project, Visual } from "../project/schema";
import { THEMES } from "../scene/colour";
import type { Scene } from "../scene/marks";
import { kindOf } from "./index";
import { Style } from "./style";
import { toVisualData, type VisualData } from "./visual-data";

export interface PictureOptions {
  theme?: "light" | "night";
  size?: { width: number; height: number };
  focus?: string | null;
  inputs?: Record<string, Value>;
}

/** Draws a visual's data into a scene. */
export function sceneOf(visual: Visual, data: VisualData, options: PictureOptions = {}): Scene {
  const kind = kindOf(visual.kind);
  const style = new Style(kind.parts, visual.dials);
  return kind.scene({ frame: options.size ?? visual.size, theme: THEMES[options.theme ?? "light"], style, data, focus: options.focus ?? null });
}

/** Draws a visual from the result of its query; the one way from numbers to a picture, everywhere. */
export function pictureOf(visual: Visual, project: Project, result: Result | { error: string } | null, options: PictureOptions = {}): Scene {
  return sceneOf(visual, toVisualData(visual, project, result, options.inputs), options);
}
