import type { TemplateNames } from "@/core/base/template";
import { type Block, filledIn, readText } from "@/core/view/board-text";
import { element } from "./elements";
import { pieceNode, textPieces } from "./text-tree";

/** A text in its tile, written anew where what it says has changed. */
export class TextTile {
  readonly root = element("div", { class: "board-text" });
  private of: string | null = null;
  private blocks: Block[] = [];
  private said = "";

  /** Writes a text with what its names stand for now, and below it what is to be known of them. */
  show(text: string, names: TemplateNames, notes: string[]): void {
    if (text !== this.of) this.blocks = readText(text || "An empty text.");
    this.of = text;
    const now = filledIn(this.blocks, names);
    const said = JSON.stringify([now, notes]);
    if (said === this.said) return;
    this.said = said;
    const below = notes.length > 0 ? [element("p", { class: "board-notes" }, notes.join(" · "))] : [];
    this.root.replaceChildren(...textPieces(now).map(pieceNode), ...below);
  }
}
