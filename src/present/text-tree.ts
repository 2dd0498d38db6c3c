import type { Block, Run } from "@/core/view/board-text";

/** A page element that a text is made of, by what it is: written as nodes of a page, or as HTML by the server. */
export type Piece = string | { tag: string; attributes?: Record<string, string>; pieces: Piece[] };

/** What stands for a name is not broken where it has no more letters. */
const LONGEST_WHOLE = 20;

const TAGS = { code: "code", bold: "strong", slanted: "em", struck: "s" } as const;

function runPiece(run: Run): Piece {
  if (run.type === "words") return run.text;
  if (run.type === "value") {
    // A number is not broken between its digits, nor from its unit.
    const name = run.text.length <= LONGEST_WHOLE ? "text-value" : "";
    return { tag: "span", ...(name ? { attributes: { class: name } } : {}), pieces: [run.text] };
  }
  if (run.type === "break") return { tag: "br", pieces: [] };
  if (run.type === "link") {
    const attributes = { href: run.to, target: "_blank", rel: "noopener noreferrer" };
    return { tag: "a", attributes, pieces: run.runs.map(runPiece) };
  }
  return { tag: TAGS[run.type], pieces: "text" in run ? [run.text] : run.runs.map(runPiece) };
}

/** What a text is made of. Its headings stand below the board's own. */
export function textPieces(blocks: Block[]): Piece[] {
  return blocks.map((block): Piece => {
    switch (block.type) {
      case "heading":
        return {
          tag: `h${block.level + 1}`,
          attributes: { class: `text-heading-${block.level}` },
          pieces: block.runs.map(runPiece),
        };
      case "paragraph":
        return { tag: "p", pieces: block.runs.map(runPiece) };
      case "quote":
        return { tag: "blockquote", pieces: textPieces(block.blocks) };
      case "rule":
        return { tag: "hr", pieces: [] };
      case "list":
        return {
          tag: block.start === null ? "ul" : "ol",
          ...(block.start === null || block.start === 1
            ? {}
            : { attributes: { start: String(block.start) } }),
          pieces: block.items.map((item) => ({ tag: "li", pieces: itemPieces(item) })),
        };
    }
  });
}

/** An item of a list: a single paragraph stands as its words alone. */
const itemPieces = (item: Block[]): Piece[] =>
  item.flatMap((block) => (block.type === "paragraph" ? block.runs.map(runPiece) : textPieces([block])));

/** A piece as a node of the page. */
export function pieceNode(piece: Piece): Node {
  if (typeof piece === "string") return document.createTextNode(piece);
  const made = document.createElement(piece.tag);
  for (const [name, value] of Object.entries(piece.attributes ?? {})) made.setAttribute(name, value);
  made.append(...piece.pieces.map(pieceNode));
  return made;
}
