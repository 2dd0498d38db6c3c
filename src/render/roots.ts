// A picture stands in a page, or in the shadow root of an element; what belongs to it stays there.

/** What an element stands in: the page, or the shadow root of an element that holds it. */
export const rootOf = (node: Node): Document | ShadowRoot => {
  const root = node.getRootNode();
  return root instanceof ShadowRoot ? root : document;
};

/** The element that has the keyboard's focus, as whoever stands beside a node sees it. */
export const focusedBeside = (node: Node): Element | null => rootOf(node).activeElement;

/**
 * Where something that lies over a node goes: into the main part of the page that the node stands in, so that
 * whoever goes through the page by its parts meets it there, or beside what an element shows.
 */
export const groundOver = (node: Node): Node => {
  const root = rootOf(node);
  if (root instanceof ShadowRoot) return root.querySelector("[data-ground]") ?? root;
  return (node instanceof Element && node.closest("main")) || document.body;
};
