"use client";
import { Copy } from "lucide-react";
import { type ReactNode, useEffect, useState } from "react";
import { copyText } from "./address-line";
import type { Language } from "./code-colours";

/** The code with its colours, once what knows languages has come; without, it is read as well. */
function useColours(code: string, language: Language): ReactNode {
  const [found, setFound] = useState<{ code: string; parts: ReactNode[] } | null>(null);
  useEffect(() => {
    let gone = false;
    void import("./code-colours").then(
      ({ coloured }) => !gone && setFound({ code, parts: coloured(code, language) }),
      () => {},
    );
    return () => {
      gone = true;
    };
  }, [code, language]);
  return found?.code === code ? found.parts : code;
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
  const parts = useColours(shown, language);
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
