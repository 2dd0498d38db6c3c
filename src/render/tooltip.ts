import type { Datum, Scene } from "@/core/scene/marks";
import { groundOver } from "./roots";

const LOOKS = {
  light: { background: "#fffdf8", border: "#dcd6c8", color: "#1c2b2d" },
  night: { background: "#22302f", border: "#3a4a4b", color: "#e9e4d8" },
};

/** What a datum says, as page elements: names from data are never read as markup. */
function write(box: HTMLElement, datum: Datum): void {
  box.replaceChildren();
  const title = box.appendChild(document.createElement("div"));
  title.textContent = datum.title;
  title.style.fontWeight = "600";
  for (const { label, value, exact } of datum.lines) {
    const line = box.appendChild(document.createElement("div"));
    line.style.cssText = "display:flex;gap:16px;justify-content:space-between";
    line.appendChild(document.createElement("span")).textContent = label;
    const written = line.appendChild(document.createElement("span"));
    written.textContent = value;
    written.style.fontWeight = "600";
    if (exact === undefined) continue;
    const full = written.appendChild(document.createElement("span"));
    full.textContent = ` ${exact}`;
    full.style.cssText = "font-weight:400;opacity:.75;white-space:nowrap";
  }
}

/**
 * A box beside the pointer that says what it stands on. It may reach past a small picture, but not
 * past the window.
 */
export interface Tooltip {
  /** Shows a datum beside a point of the picture, in pixels from its corner. */
  show(datum: Datum, x: number, y: number, theme: Scene["theme"]): void;
  hide(): void;
  remove(): void;
}

const isOpen = (box: HTMLElement) => "popover" in box && box.matches(":popover-open");

/** Makes the tooltip of a picture; its element joins the page when it is first shown. */
export function tooltipOf(picture: HTMLElement): Tooltip {
  let box: HTMLElement | null = null;
  let said: Datum | null = null;
  return {
    show(datum, x, y, theme) {
      if (!box) {
        box = groundOver(picture).appendChild(document.createElement("div"));
        box.setAttribute("role", "tooltip");
        box.setAttribute("part", "tooltip");
        // In the top layer nothing of the page lies over it or moves what it is placed by.
        box.setAttribute("popover", "manual");
      }
      const { background, border, color } = LOOKS[theme];
      box.style.cssText = `position:fixed;inset:auto;left:0;top:0;margin:0;z-index:60;pointer-events:none;max-width:320px;padding:8px 10px;border:1px solid ${border};border-radius:8px;background:${background};color:${color};font-size:12.5px;line-height:1.5`;
      if (!isOpen(box)) box.showPopover?.();
      if (said !== datum) write(box, datum);
      said = datum;
      const { left, top, width, height } = picture.getBoundingClientRect();
      // A board of a width of its own is scaled to its window.
      const scale = width / (picture.offsetWidth || width);
      const size = box.getBoundingClientRect();
      const gap = 14;
      // Away from the middle of the picture, where the reading stands.
      const beside = (at: number, whole: number, own: number) => (at < whole / 2 ? at - own - gap : at + gap);
      const within = (wanted: number, own: number, end: number) =>
        Math.max(8, Math.min(wanted, end - own - 8));
      box.style.left = `${within(left + beside(x * scale, width, size.width), size.width, window.innerWidth)}px`;
      box.style.top = `${within(top + beside(y * scale, height, size.height), size.height, window.innerHeight)}px`;
    },
    hide() {
      said = null;
      if (!box) return;
      if (isOpen(box)) box.hidePopover?.();
      box.style.display = "none";
    },
    remove() {
      box?.remove();
    },
  };
}
