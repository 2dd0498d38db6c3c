import { lexer, type Token, type Tokens } from "marked";
import { fillTemplate, type TemplateNames } from "../base/template";

/** A run of a text: words, what stands for a name, or what is done with some. */
export type Run =
  | { type: "words" | "code" | "value"; text: string }
  | { type: "bold" | "slanted" | "struck"; runs: Run[] }
  | { type: "link"; to: string; runs: Run[] }
  | { type: "break" };

/** A piece of a text. */
export type Block =
  | { type: "heading"; level: number; runs: Run[] }
  | { type: "paragraph"; runs: Run[] }
  | { type: "list"; start: number | null; items: Block[][] }
  | { type: "quote"; blocks: Block[] }
  | { type: "rule" };

// Names in braces are set aside while marks are read, so that an underscore in one is none.
const ASIDE = /\{[^{}]*\}/g;
const PUT = /\ue000(\d+)\ue001/g;

/** Where a link may lead: to a page or a mailbox, and to nothing that runs. */
const MAY_LEAD = /^(https?:\/\/|mailto:)/i;

/**
 * A text of a board in its small Markdown: headings, paragraphs, lists, quotes, rules, bold, italics, code,
 * links. What is none of these stands as it was written: nothing becomes HTML.
 */
export function readText(markdown: string): Block[] {
  const names: string[] = [];
  const plain = markdown.replace(ASIDE, (name) => `\ue000${names.push(name) - 1}\ue001`);
  const back = (text: string) => text.replace(PUT, (whole, at) => names[Number(at)] ?? whole);
  const runs = (tokens: Token[] | undefined): Run[] => (tokens ?? []).map(runOf);
  const runOf = (token: Token): Run => {
    switch (token.type) {
      case "strong":
        return { type: "bold", runs: runs(token.tokens) };
      case "em":
        return { type: "slanted", runs: runs(token.tokens) };
      case "del":
        return { type: "struck", runs: runs(token.tokens) };
      case "br":
        return { type: "break" };
      case "codespan":
        return { type: "code", text: back(token.text) };
      case "link":
        return MAY_LEAD.test(token.href)
          ? { type: "link", to: token.href, runs: runs(token.tokens) }
          : { type: "words", text: back(token.raw) };
      case "text":
      case "escape":
        return { type: "words", text: back(token.text) };
      default:
        return { type: "words", text: back(token.raw) };
    }
  };
  const blocks = (tokens: Token[]): Block[] => tokens.flatMap(blockOf);
  const blockOf = (token: Token): Block[] => {
    switch (token.type) {
      case "space":
      case "def":
        return [];
      case "heading":
        return [{ type: "heading", level: Math.min(3, token.depth), runs: runs(token.tokens) }];
      case "hr":
        return [{ type: "rule" }];
      case "blockquote":
        return [{ type: "quote", blocks: blocks(token.tokens ?? []) }];
      case "list": {
        const { ordered, start, items } = token as Tokens.List;
        return [
          { type: "list", start: ordered ? Number(start) : null, items: items.map((i) => blocks(i.tokens)) },
        ];
      }
      case "paragraph":
      case "text":
        return [
          {
            type: "paragraph",
            runs: token.tokens ? runs(token.tokens) : [{ type: "words", text: back(token.raw) }],
          },
        ];
      default:
        return [{ type: "paragraph", runs: [{ type: "words", text: back(token.raw.trimEnd()) }] }];
    }
  };
  return blocks(lexer(plain, { gfm: true, breaks: true }));
}

/** Words with what the names in them stand for, each a run of its own. */
function filledRun(run: Extract<Run, { text: string }>, names: TemplateNames): Run[] {
  const parts = run.text.split(/(\{[^{}]*\})/).filter(Boolean);
  return parts.map((text): Run => {
    if (!text.startsWith("{") || !text.endsWith("}")) return { ...run, text };
    return { type: run.type === "code" ? "code" : "value", text: fillTemplate(text, names) };
  });
}

/** A text with what its names stand for: what comes from data is words, whatever marks it has. */
export function filledIn(blocks: Block[], names: TemplateNames): Block[] {
  const runs = (of: Run[]): Run[] =>
    of.flatMap((run): Run[] => {
      if ("text" in run) return filledRun(run, names);
      return "runs" in run ? [{ ...run, runs: runs(run.runs) }] : [run];
    });
  const block = (of: Block): Block => {
    if ("runs" in of) return { ...of, runs: runs(of.runs) };
    if (of.type === "list") return { ...of, items: of.items.map((i) => i.map(block)) };
    return of.type === "quote" ? { ...of, blocks: of.blocks.map(block) } : of;
  };
  return blocks.map(block);
}

/** A text without its marks, as one line. */
export function plainText(blocks: Block[]): string {
  const said = (runs: Run[]): string =>
    runs
      .map((run) => {
        if ("text" in run) return run.text;
        return "runs" in run ? said(run.runs) : " ";
      })
      .join("");
  const line = (block: Block): string => {
    if ("runs" in block) return said(block.runs);
    if (block.type === "list") return block.items.flat().map(line).join(", ");
    return block.type === "quote" ? block.blocks.map(line).join(" ") : "";
  };
  return blocks.map(line).filter(Boolean).join(" ").replace(/\s+/g, " ").trim();
}
