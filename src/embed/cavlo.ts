import { CavloVisual } from "./visual-element";

export { registerFamily } from "./own-family";
export { CavloVisual };

// The module may be loaded twice, from two addresses: the first one counts.
if (globalThis.customElements && !customElements.get("cavlo-visual"))
  customElements.define("cavlo-visual", CavloVisual);
