import type { SvgNode } from "../svg-tree";

const SVG = "http://www.w3.org/2000/svg";

/** An SVG element with all that is in it. Texts are set as texts: nothing of the data is read as markup. */
export function made(node: SvgNode): SVGElement {
  const element = document.createElementNS(SVG, node.tag);
  for (const [name, value] of Object.entries(node.attributes)) element.setAttribute(name, String(value));
  if (node.text !== undefined) element.textContent = node.text;
  for (const child of node.children) element.appendChild(made(child));
  return element;
}

/** A text in the place of another: in the node that is there, since a new one is styled and laid out anew. */
function write(element: Element, text: string): void {
  const { firstChild } = element;
  if (firstChild instanceof Text) firstChild.data = text;
  else element.textContent = text;
}

/** Makes an element that was drawn from one node what another says; only what differs is touched. */
export function patch(element: Element, before: SvgNode, now: SvgNode): void {
  for (const name in before.attributes)
    if (!Object.hasOwn(now.attributes, name)) element.removeAttribute(name);
  for (const name in now.attributes) {
    const value = now.attributes[name];
    if (before.attributes[name] !== value) element.setAttribute(name, String(value));
  }
  if (now.text !== before.text && now.children.length === 0) write(element, now.text ?? "");
  // From one to its neighbour: asked for by their number, elements are counted anew after each change.
  let there = element.firstElementChild;
  for (const [i, child] of now.children.entries()) {
    const was = before.children[i];
    const next: Element | null = there?.nextElementSibling ?? null;
    if (was && there && was.tag === child.tag) patch(there, was, child);
    else if (there) there.replaceWith(made(child));
    else element.appendChild(made(child));
    there = next;
  }
  while (there) {
    const next: Element | null = there.nextElementSibling;
    there.remove();
    there = next;
  }
}
