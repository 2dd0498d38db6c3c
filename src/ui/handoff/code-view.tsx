"use client";
import { parseMixed } from "@lezer/common";
import { classHighlighter, highlightCode } from "@lezer/highlight";
import { parser as html } from "@lezer/html";
import { parser as javascript } from "@lezer/javascript";
import { Copy } from "lucide-react";
import { type ReactNode, useMemo } from "react";
import { copyText } from "./address-line";

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

function coloured(code: string, language: Language): ReactNode[] {
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

/** Code with its colours, which is copied whole with one click. */
export function CodeView({
  code,
  language,
  label,
  shown = code,
}: {
  code: string;
  language: Language;
  label: string;
  /** What of it is shown, where it is long. */
  shown?: string;
}) {
  const parts = useMemo(() => coloured(shown, language), [shown, language]);
  return (
    <div className="code relative">
      <pre
        // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls is reached by keyboard
        tabIndex={0}
        role="region"
        aria-label={label}
        className="max-h-80 overflow-auto rounded-md bg-[#182022] p-3 pr-10 font-mono text-[11.5px] leading-[1.55] text-[#dfe7e2]"
      >
        <code>{parts}</code>
      </pre>
      <button
        type="button"
        className="absolute top-1.5 right-1.5 grid size-7 place-items-center rounded-sm bg-[#263134] text-[#dfe7e2] hover:bg-[#33413f]"
        aria-label={`Copy ${label}`}
        title="Copy"
        onClick={() => void copyText(code, "The code")}
      >
        <Copy size={14} />
      </button>
    </div>
  );
}
