import { markBetween } from "@/core/scene/between";
import { categoryOf, type Datum, focusOf, type Mark, type Scene } from "@/core/scene/marks";
import { type SvgNode, sceneTree } from "../svg-tree";
import { tooltipOf } from "../tooltip";
import { type StartPicture, wantsMore } from "./live";
import { made, patch } from "./patch";

/** Fast at first and gentle at the end: what is left goes by the third power. */
const eased = (share: number) => 1 - (1 - share) ** 3;

let started = 0;

/** A finger that rests so long picks one more, in milliseconds. */
const LONG = 500;
/** A finger that moved further than this does something else, in pixels. */
const STILL = 10;

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
    const of = mark && categoryOf(mark);
    element.style.cursor = of ? "pointer" : "default";
    listen.onFocus?.(mark && focusOf(mark));
    listen.onPart?.(mark?.part ?? null);
  };
  const leave = () => {
    if (!under) return;
    under = null;
    tooltip.hide();
    listen.onFocus?.(null);
    listen.onPart?.(null);
  };
  const categoryAt = (target: EventTarget | null) => {
    const mark = markOf(target);
    return mark && categoryOf(mark);
  };
  const pick = (target: EventTarget | null, more: boolean) => {
    const of = categoryAt(target);
    if (of) listen.onPick?.(of, more);
  };
  const enter = (event: MouseEvent) => {
    const of = categoryAt(event.target);
    if (of) listen.onEnter?.(of);
  };
  /** Where a finger rests, and what happens once it has rested long enough. */
  let resting: { x: number; y: number; timer: ReturnType<typeof setTimeout> } | null = null;
  let wasLong = false;
  const lift = () => {
    clearTimeout(resting?.timer);
    resting = null;
  };
  const down = (event: PointerEvent) => {
    over(event);
    lift();
    wasLong = false;
    if (event.pointerType === "mouse") return;
    const { target, clientX: x, clientY: y } = event;
    const timer = setTimeout(() => {
      wasLong = true;
      pick(target, true);
    }, LONG);
    resting = { x, y, timer };
  };
  const moved = (event: PointerEvent) => {
    over(event);
    if (resting && Math.hypot(event.clientX - resting.x, event.clientY - resting.y) > STILL) lift();
  };
  const click = (event: MouseEvent) => {
    // The click at the end of a long press has been answered.
    if (!wasLong) pick(event.target, wantsMore(event));
    wasLong = false;
  };
  // A long press is a pick here, not a menu of the browser's.
  const menu = (event: Event) => resting && event.preventDefault();
  const heard: [string, (event: never) => void][] = [
    ["pointermove", moved],
    ["pointerdown", down],
    ["pointerup", lift],
    ["pointercancel", lift],
    ["contextmenu", menu],
    ["click", click],
    ["dblclick", enter],
  ];
  for (const [name, listener] of heard) element.addEventListener(name, listener as EventListener);
  element.addEventListener("pointerleave", leave);

  return {
    draw(next, still) {
      scene = next;
      const enters = !entered && next.marks.some((m) => m.surface === "data");
      entered ||= enters;
      // The first shapes take their time to enter; what joins later comes at the pace of the change.
      move(next, still ? 0 : enters ? next.motion.entry : next.motion.change);
    },
    tell,
    categoryAt,
    // The scene says its own size.
    resize: () => {},
    dispose() {
      cancelAnimationFrame(frame);
      lift();
      for (const [name, listener] of heard) element.removeEventListener(name, listener as EventListener);
      element.removeEventListener("pointerleave", leave);
      tooltip.remove();
      element.replaceChildren();
    },
  };
};
