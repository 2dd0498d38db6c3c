// A picture stands in a page, or in the shadow root of an element; what belongs to it stays there.

/** What an element stands in: the page, or the shadow root of an element that holds it. */
export const rootOf = (node: Node): Document | ShadowRoot => {
  const root = node.getRootNode();
  return root instanceof ShadowRoot ? root : document;
};

/** The element that has the keyboard's focus, as whoever stands beside a node sees it. */
export const focusedBeside = (node: Node): Element | null => rootOf(node).activeElement;

/** Where something that lies over a node goes: into the page, or beside what an element shows. */
export const groundOver = (node: Node): Node => {
  const root = rootOf(node);
  return root instanceof ShadowRoot ? (root.querySelector("[data-ground]") ?? root) : document.body;
};
