import { SaxesParser } from "saxes";
import { ImportProblem } from "./import-problem";

/** What happens at the tags of a file; names come without their prefix, attributes with. */
export interface TagHandlers {
  open?: (name: string, attributes: Record<string, string>) => void;
  close?: (name: string) => void;
  text?: (text: string) => void;
}

/** No part of a workbook nests deeper than a few levels. */
const MOST_DEPTH = 100;

const local = (name: string) => name.slice(name.indexOf(":") + 1);

/** Reads XML piece by piece. Rejects with an ImportProblem where it is not well-formed. */
export async function readXml(pieces: AsyncIterable<string>, handlers: TagHandlers): Promise<void> {
  const parser = new SaxesParser();
  let problem: Error | null = null;
  parser.on("error", (error) => {
    problem ??= error;
  });
  let depth = 0;
  parser.on("opentag", (tag) => {
    if (++depth > MOST_DEPTH)
      throw new ImportProblem(
        "The workbook holds XML that is nested without end. Open it, save it again as XLSX, and bring in the new file.",
      );
    handlers.open?.(local(tag.name), tag.attributes as Record<string, string>);
  });
  parser.on("closetag", (tag) => {
    depth--;
    handlers.close?.(local(tag.name));
  });
  if (handlers.text) {
    parser.on("text", handlers.text);
    parser.on("cdata", handlers.text);
  }
  const check = () => {
    if (problem)
      throw new ImportProblem(
        `The workbook holds broken XML (${problem.message}). Open it, save it again as XLSX, and bring in the new file.`,
      );
  };
  for await (const piece of pieces) {
    parser.write(piece);
    check();
  }
  parser.close();
  check();
}

/**
 * A text of a workbook with its escaped characters (_x000A_) as they are meant (ECMA-376, 22.9.2.19). Halves
 * of pairs are mended.
 */
export function workbookText(text: string): string {
  return text
    .replace(/_x([0-9A-Fa-f]{4})_/g, (_, code: string) => String.fromCharCode(Number.parseInt(code, 16)))
    .toWellFormed();
}
