import { markBetween } from "@/core/scene/between";
import type { Datum, Mark, Scene } from "@/core/scene/marks";
import { type SvgNode, sceneTree } from "../svg-tree";
import { tooltipOf } from "../tooltip";
import type { StartPicture } from "./live";
import { made, patch } from "./patch";

/** Fast at first and gentle at the end: what is left goes by the third power. */
const eased = (share: number) => 1 - (1 - share) ** 3;

let started = 0;

/**
 * Paints a scene as SVG and keeps it alive without a chart library: the same tree that the server writes,
 * with marks that move to their next state by their names, a tooltip, and answers to the pointer.
 */
export const startPainter: StartPicture = (element, _size, listen) => {
  const prefix = `p${++started}-`;
  const tooltip = tooltipOf(element);
  /** The scene that is drawn, or moved to. */
  let scene: Scene | null = null;
  /** The marks as they stand now, by name. */
  let shown = new Map<string, Mark>();
  let tree: SvgNode | null = null;
  let svg: SVGElement | null = null;
  let frame = 0;
  let entered = false;
  let under: Mark | null = null;

  const paint = (to: Scene, marks: Mark[]) => {
    shown = new Map(marks.map((m) => [m.id, m]));
    // Ground and border are those of the element that it stands in.
    const next = sceneTree({ ...to, marks, background: null, border: null }, { prefix, indexed: true });
    if (svg && tree) patch(svg, tree, next);
    else {
      svg = made(next);
      svg.style.cssText = "display:block;user-select:none";
      element.appendChild(svg);
    }
    tree = next;
  };

  const move = (to: Scene, duration: number) => {
    cancelAnimationFrame(frame);
    const before = shown;
    if (duration <= 0) return paint(to, to.marks);
    const began = performance.now();
    const step = () => {
      const share = Math.min(1, (performance.now() - began) / duration);
      paint(
        to,
        to.marks.map((m) => markBetween(before.get(m.id), m, eased(share))),
      );
      if (share < 1) frame = requestAnimationFrame(step);
    };
    step();
  };

  const markOf = (target: EventTarget | null): Mark | null => {
    const at = target instanceof Element ? target.closest("[data-mark]")?.getAttribute("data-mark") : null;
    return (at !== null && at !== undefined && scene?.marks[Number(at)]) || null;
  };
  const tell = (datum: Datum | null, x: number, y: number) => {
    if (datum && scene) tooltip.show(datum, x, y, scene.theme);
    else tooltip.hide();
  };
  const over = (event: PointerEvent) => {
    const mark = markOf(event.target);
    const { left, top, width } = element.getBoundingClientRect();
    // In pixels of the picture, which may be drawn at another scale.
    const scale = width / (element.offsetWidth || width) || 1;
    tell(mark?.datum ?? null, (event.clientX - left) / scale, (event.clientY - top) / scale);
    if (mark?.id === under?.id) return;
    under = mark;
    element.style.cursor = mark?.datum ? "pointer" : "default";
    listen.onFocus?.(mark?.datum?.key ?? null);
    listen.onPart?.(mark?.part ?? null);
  };
  const leave = () => {
    if (!under) return;
    under = null;
    tooltip.hide();
    listen.onFocus?.(null);
    listen.onPart?.(null);
  };
  const click = (event: MouseEvent) => {
    const key = markOf(event.target)?.datum?.key;
    if (key !== undefined) listen.onPick?.(key);
  };
  element.addEventListener("pointermove", over);
  element.addEventListener("pointerdown", over);
  element.addEventListener("pointerleave", leave);
  element.addEventListener("click", click);

  return {
    draw(next, still) {
      scene = next;
      const enters = !entered && next.marks.some((m) => m.surface === "data");
      entered ||= enters;
      // The first shapes take their time to enter; what joins later comes at the pace of the change.
      move(next, still ? 0 : enters ? next.motion.entry : next.motion.change);
    },
    tell,
    // The scene says its own size.
    resize: () => {},
    dispose() {
      cancelAnimationFrame(frame);
      element.removeEventListener("pointermove", over);
      element.removeEventListener("pointerdown", over);
      element.removeEventListener("pointerleave", leave);
      element.removeEventListener("click", click);
      tooltip.remove();
      element.replaceChildren();
    },
  };
};
