import { parseMixed } from "@lezer/common";
import { classHighlighter, highlightCode } from "@lezer/highlight";
import { parser as html } from "@lezer/html";
import { parser as javascript } from "@lezer/javascript";
import type { ReactNode } from "react";

export type Language = "html" | "js" | "tsx";

const script = javascript;
const typed = javascript.configure({ dialect: "ts jsx" });
/** Scripts in a page are read as scripts. */
const page = html.configure({
  wrap: parseMixed((node) => (node.name === "ScriptText" ? { parser: script } : null)),
});
const PARSERS = { html: page, js: script, tsx: typed };

/** Longer code is shown as it is: colouring it would keep the page waiting. */
const MOST_COLOURED = 60_000;

/** Code as texts and coloured stretches of it. */
export function coloured(code: string, language: Language): ReactNode[] {
  if (code.length > MOST_COLOURED) return [code];
  const parts: ReactNode[] = [];
  highlightCode(
    code,
    PARSERS[language].parse(code),
    classHighlighter,
    (text, classes) =>
      parts.push(
        classes ? (
          <span key={parts.length} className={classes}>
            {text}
          </span>
        ) : (
          text
        ),
      ),
    () => parts.push("\n"),
  );
  return parts;
}
