import type { Fill, Handle, Mark, Scene, Track } from "./marks";

type Radii = [number, number, number, number];
const radii = (r: Radii, k: number) => r.map((x) => x * k) as Radii;
const points = (list: [number, number][], k: number) =>
  list.map(([x, y]): [number, number] => [x * k, y * k]);

/** Only ramps outwards from a point stand in pixels; others are spread over their mark's own box. */
const scaledFill = (fill: Fill, k: number): Fill =>
  typeof fill === "object" && fill.type === "radial"
    ? { ...fill, cx: fill.cx * k, cy: fill.cy * k, r: fill.r * k }
    : fill;

/** What every mark has in pixels. */
function scaledBase<M extends Mark>(mark: M, k: number): M {
  const { fill, strokeWidth, shadow, clip, whole } = mark;
  return {
    ...mark,
    ...(fill === undefined ? {} : { fill: scaledFill(fill, k) }),
    ...(strokeWidth === undefined ? {} : { strokeWidth: strokeWidth * k }),
    ...(shadow && { shadow: { ...shadow, blur: shadow.blur * k, dx: shadow.dx * k, dy: shadow.dy * k } }),
    ...(clip && {
      clip: {
        x: clip.x * k,
        y: clip.y * k,
        width: clip.width * k,
        height: clip.height * k,
        radii: radii(clip.radii, k),
      },
    }),
    ...(whole && whole.axis !== "angle" && { whole: { ...whole, from: whole.from * k, to: whole.to * k } }),
  };
}

function scaledMark(mark: Mark, k: number): Mark {
  const base = scaledBase(mark, k);
  switch (base.type) {
    case "sector": {
      const { cx, cy, inner, outer, inset, corners } = base;
      return {
        ...base,
        cx: cx * k,
        cy: cy * k,
        inner: inner * k,
        outer: outer * k,
        inset: inset * k,
        corners: radii(corners, k),
      };
    }
    case "rect": {
      const { x, y, width, height } = base;
      return {
        ...base,
        x: x * k,
        y: y * k,
        width: width * k,
        height: height * k,
        radii: radii(base.radii, k),
      };
    }
    case "picture":
      return { ...base, x: base.x * k, y: base.y * k, width: base.width * k, height: base.height * k };
    case "circle":
      return { ...base, cx: base.cx * k, cy: base.cy * k, r: base.r * k };
    case "polygon":
      return { ...base, x: base.x * k, y: base.y * k, points: points(base.points, k) };
    case "line":
      return { ...base, points: points(base.points, k) };
    case "text": {
      const letters = base.letters?.map((one) => ({ ...one, x: one.x * k, y: one.y * k }));
      const line = { ...base, x: base.x * k, y: base.y * k, size: base.size * k };
      return letters ? { ...line, letters } : line;
    }
    case "icon":
      return { ...base, x: base.x * k, y: base.y * k, size: base.size * k };
  }
}

function scaledTrack(track: Track, k: number): Track {
  switch (track.type) {
    case "radial":
      return { ...track, cx: track.cx * k, cy: track.cy * k, r0: track.r0 * k, r1: track.r1 * k };
    case "angular":
      return { ...track, cx: track.cx * k, cy: track.cy * k, r: track.r * k };
    case "straight":
      return { ...track, x0: track.x0 * k, y0: track.y0 * k, x1: track.x1 * k, y1: track.y1 * k };
  }
}

const scaledHandle = (handle: Handle, k: number): Handle => ({
  ...handle,
  x: handle.x * k,
  y: handle.y * k,
  track: scaledTrack(handle.track, k),
});

/** The whole scene `k` times as large, type and strokes with it; what it says stays the same. */
export function scaledScene(scene: Scene, k: number): Scene {
  if (k === 1) return scene;
  return {
    ...scene,
    width: scene.width * k,
    height: scene.height * k,
    border: scene.border && { ...scene.border, radius: scene.border.radius * k },
    marks: scene.marks.map((mark) => scaledMark(mark, k)),
    handles: scene.handles.map((handle) => scaledHandle(handle, k)),
  };
}
