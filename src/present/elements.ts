/** What an element is made with: attributes, `on…` for what it hears, `class` for its looks. */
type Attributes = Record<string, string | number | boolean | null | ((event: never) => void)>;

/**
 * A page element with its attributes (false and null: none) and what stands in it. Texts are set as texts:
 * nothing of the data is read as markup.
 */
export function element<K extends keyof HTMLElementTagNameMap>(
  tag: K,
  attributes: Attributes = {},
  ...children: (Node | string)[]
): HTMLElementTagNameMap[K] {
  const made = document.createElement(tag);
  for (const [name, value] of Object.entries(attributes)) {
    if (value === null || value === false) continue;
    if (typeof value === "function") made.addEventListener(name.slice(2), value as EventListener);
    else made.setAttribute(name, value === true ? "" : String(value));
  }
  made.append(...children);
  return made;
}

/** Whether something lies over the board that Escape closes first. */
export const isSomethingOver = (root: ParentNode = document): boolean =>
  root.querySelector(":popover-open:not([role=tooltip]), dialog[open], [role=dialog], [role=menu]") !== null;

/** Whether a key leaves a presented board: Escape, unless it closes or takes back something within. */
export const leaves = (event: KeyboardEvent): boolean =>
  event.key === "Escape" && !event.defaultPrevented && !isSomethingOver();

let names = 0;
/** A name that no other element of the page has. */
export const freshName = (of: string): string => `${of}-${++names}`;

/** The paths of the few signs that a board has, drawn on a ground of 24 by 24. */
const SIGNS = {
  minus: "M5 12h14",
  plus: "M5 12h14M12 5v14",
  close: "M18 6 6 18M6 6l12 12",
  more: "M5 12h.01M12 12h.01M19 12h.01",
  walk: "M3 5h12v9H3zM8 18h13V9",
  full: "M8 3H3v5M16 3h5v5M8 21H3v-5M16 21h5v-5",
};

/** A sign in the colour of the text around it. */
export function sign(name: keyof typeof SIGNS, size: number): SVGElement {
  const svg = document.createElementNS("http://www.w3.org/2000/svg", "svg");
  for (const [attribute, value] of Object.entries({
    viewBox: "0 0 24 24",
    width: size,
    height: size,
    fill: "none",
    stroke: "currentColor",
    "stroke-width": 2,
    "stroke-linecap": "round",
    "aria-hidden": true,
  }))
    svg.setAttribute(attribute, String(value));
  const path = document.createElementNS("http://www.w3.org/2000/svg", "path");
  path.setAttribute("d", SIGNS[name]);
  svg.append(path);
  return svg;
}

/** A list is not opened into less room than this where there is more on the other side, in pixels. */
const LEAST_ROOM = 180;

/** Where a list opens beside its button, at most so high: below it, or above where there is more room. */
export function besideButton(box: DOMRect, most: number): { top: string; bottom: string; maxHeight: string } {
  const [above, below] = [box.top - 16, window.innerHeight - box.bottom - 16];
  const isBelow = below >= LEAST_ROOM || below >= above;
  return {
    top: isBelow ? `${box.bottom + 6}px` : "auto",
    bottom: isBelow ? "auto" : `${window.innerHeight - box.top + 6}px`,
    maxHeight: `${Math.max(80, Math.min(most, isBelow ? below : above))}px`,
  };
}

/**
 * A button that opens a list in the platform's own popover: it closes with Escape or a click beside it. The
 * list is written anew each time it opens.
 */
export function popoverButton(
  label: string,
  attributes: Attributes,
  write: () => (Node | string)[],
): { button: HTMLButtonElement; list: HTMLElement } {
  const id = freshName("list");
  const button = element("button", { type: "button", popovertarget: id, ...attributes });
  const list = element("div", {
    id,
    popover: "auto",
    role: "group",
    "aria-label": label,
    class: "board-list",
  });
  list.addEventListener("beforetoggle", (event) => {
    if ((event as ToggleEvent).newState !== "open") return list.replaceChildren();
    const box = button.getBoundingClientRect();
    list.replaceChildren(...write());
    list.style.left = `${Math.max(8, Math.min(box.left, window.innerWidth - 248))}px`;
    Object.assign(list.style, besideButton(box, 420));
  });
  return { button, list };
}
