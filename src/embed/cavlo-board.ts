import { CavloBoard } from "./board-element";

export { CavloVisual, registerFamily } from "./cavlo";
export { CavloBoard };

if (globalThis.customElements && !customElements.get("cavlo-board"))
  customElements.define("cavlo-board", CavloBoard);
