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

/** Makes an element that was drawn from one node what another says; only what differs is touched. */
export function patch(element: Element, before: SvgNode, now: SvgNode): void {
  for (const name of Object.keys(before.attributes))
    if (!Object.hasOwn(now.attributes, name)) element.removeAttribute(name);
  for (const [name, value] of Object.entries(now.attributes))
    if (before.attributes[name] !== value) element.setAttribute(name, String(value));
  if (now.text !== before.text && now.children.length === 0) element.textContent = now.text ?? "";
  for (const [i, child] of now.children.entries()) {
    const was = before.children[i];
    const there = element.children[i];
    if (was && there && was.tag === child.tag) patch(there, was, child);
    else if (there) there.replaceWith(made(child));
    else element.appendChild(made(child));
  }
  while (element.children.length > now.children.length) element.lastElementChild?.remove();
}
