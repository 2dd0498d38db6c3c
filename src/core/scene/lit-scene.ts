import { THEMES } from "./colour";
import type { Mark, Rect, Scene, Text } from "./marks";
import { LINE_HEIGHT, textWidth } from "./text";

const WIDTH = 1.5;
/** Around what has no outline of its own, in pixels. */
const MARGIN = 2;

/** A box around a mark, in pixels, with what it says. */
const boxed = (mark: Mark, x: number, y: number, width: number, height: number): Rect => ({
  type: "rect",
  id: mark.id,
  part: mark.part,
  ...(mark.datum ? { datum: mark.datum } : {}),
  x: x - MARGIN,
  y: y - MARGIN,
  width: width + 2 * MARGIN,
  height: height + 2 * MARGIN,
  radii: [3, 3, 3, 3],
});

function textBox(mark: Text): Rect {
  const width = textWidth(mark.text, mark.size, mark.weight);
  const height = mark.size * LINE_HEIGHT;
  const left = { start: mark.x, middle: mark.x - width / 2, end: mark.x - width }[mark.align];
  return boxed(mark, left, mark.y - height / 2, width, height);
}

/** The shape whose stroke outlines a mark; none for letters along a bend, which are no box. */
function shapeOf(mark: Mark): Mark[] {
  switch (mark.type) {
    case "text":
      return mark.letters ? [] : [textBox(mark)];
    case "line": {
      const [xs, ys] = [mark.points.map((p) => p[0]), mark.points.map((p) => p[1])];
      const [x, y] = [Math.min(...xs), Math.min(...ys)];
      return [boxed(mark, x, y, Math.max(...xs) - x, Math.max(...ys) - y)];
    }
    case "icon":
      return [boxed(mark, mark.x, mark.y, mark.size, mark.size)];
    case "picture":
      return [boxed(mark, mark.x, mark.y, mark.width, mark.height)];
    default:
      return [mark];
  }
}

/**
 * The scene with one part lit: its marks are outlined, and all else stays as it is, so that it can be judged.
 * A part that draws nothing leaves the scene alone.
 */
export function litScene(scene: Scene, part: string | null): Scene {
  const lit = part ? scene.marks.filter((m) => m.part === part).flatMap(shapeOf) : [];
  if (lit.length === 0) return scene;
  const stroke = THEMES[scene.theme].signal;
  const outlines = lit.map((mark): Mark => {
    const { fill: _fill, shadow: _shadow, grow: _grow, surface: _surface, shows: _shows, ...shape } = mark;
    return { ...shape, id: `lit/${mark.id}`, stroke, strokeWidth: WIDTH, opacity: 1 } as Mark;
  });
  return { ...scene, marks: [...scene.marks, ...outlines] };
}
