import { kindOf } from "../kinds";
import { withFigures } from "../kinds/anatomy/figures";
import type { Lit, SceneInput } from "../kinds/anatomy/kind";
import type { SharedPart } from "../kinds/anatomy/shared-parts";
import { type OpenStyle, type Style, styleFrom } from "../kinds/anatomy/style";
import { Surface } from "../kinds/anatomy/surface";
import { finishDials } from "../kinds/finishes";
import type { Result } from "../plan/query";
import type { Project, Visual } from "../project/schema";
import type { Around } from "../rows/read-result";
import type { VisualData } from "../rows/visual-data";
import { THEMES, themeOn } from "../scene/colour";
import type { Focus, Scene } from "../scene/marks";
import { scaledScene } from "../scene/scaled";
import { measuredIn } from "../scene/text";
import { toVisualData } from "./visual-data";

/** What a project brings to the look of its visuals. */
export type Design = Pick<Project, "palettes" | "finishes" | "pictures"> & {
  /** A family that goes before those of all visuals, by its id. */
  family?: string | undefined;
};

/** What a drawing can differ in from the visual as it is kept. */
export interface PictureOptions extends Around {
  theme?: "light" | "night";
  size?: { width: number; height: number };
  focus?: Focus | null;
  lit?: Lit | null;
}

const NO_DESIGN: Design = { palettes: [], finishes: [], pictures: [] };

/** A style of any kind: all have the shared parts. */
export type KindStyle = Style<SharedPart> & OpenStyle;

/** The style of a visual: its own dials over those of its finish over the defaults of its kind. */
export function styleOf(
  visual: Pick<Visual, "kind" | "dials" | "finish">,
  design: Design = NO_DESIGN,
): KindStyle {
  const layers = [visual.dials, ...finishDials(visual.finish, design.finishes)];
  return styleFrom(kindOf(visual.kind).parts, ...layers) as KindStyle;
}

/**
 * What a visual's kind draws from: its style, colours, look and data, with numbers in the units that
 * it asks for.
 */
export function sceneInput(
  visual: Visual,
  data: VisualData,
  design: Design = NO_DESIGN,
  options: PictureOptions = {},
): SceneInput {
  const style = styleOf(visual, design);
  const sheet = style.choice("frame.sheet");
  const background = style.toggle("frame.filled") ? style.colour("frame.background", "") : "";
  const page = THEMES[sheet === "page" ? (options.theme ?? "light") : sheet];
  const theme = background ? themeOn(background) : page;
  const { categoryColours, pictures } = visual;
  return {
    frame: options.size ?? visual.size,
    theme,
    style,
    surface: new Surface(style, theme),
    look: { palettes: design.palettes, categoryColours, pictures, ownPictures: design.pictures },
    data: withFigures(data, style, Math.max(visual.size.width, visual.size.height)),
    focus: options.focus ?? null,
    lit: options.lit ?? null,
    downwards: kindOf(visual.kind).downwards ?? false,
    countsNames: false,
  };
}

/** Draws a visual's data into a scene. */
export function sceneOf(
  visual: Visual,
  data: VisualData,
  design: Design = NO_DESIGN,
  options: PictureOptions = {},
): Scene {
  const style = styleOf(visual, design);
  const k = style.choice("frame.grow") === "grow" ? growthIn(visual.size, options.size) : 1;
  const { width, height } = options.size ?? visual.size;
  const input = sceneInput(visual, data, design, {
    ...options,
    size: { width: width / k, height: height / k },
  });
  const family = design.family ?? style.choice("type.family");
  const scene = measuredIn(family, () => kindOf(visual.kind).scene(input));
  return scaledScene({ ...scene, family }, k);
}

/**
 * How many times a frame is larger than the visual was made for. In a smaller one type and strokes stay, so
 * that they can be read.
 */
function growthIn(made: Visual["size"], frame = made): number {
  return Math.max(1, Math.min(frame.width / made.width, frame.height / made.height));
}

/** Draws a visual from the result of its query; the one way from numbers to a picture, everywhere. */
export function pictureOf(
  visual: Visual,
  project: Project,
  result: Result | { error: string } | null,
  options: PictureOptions = {},
): Scene {
  return sceneOf(visual, toVisualData(visual, project, result, options), project, options);
}
