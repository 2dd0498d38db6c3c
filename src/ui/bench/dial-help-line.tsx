"use client";
import { type RefObject, useEffect, useState } from "react";

/** The help is fetched with the first dial that the pointer or the focus rests on. */
const fetchHelp = () => import("./dial-help").then((m) => m.DIAL_HELP);

/** The id of the line, by which dials are described for readers who hear them. */
export const HELP_ID = "dial-help";

/**
 * One line at the foot of the dials that says what the dial under the pointer or the focus does. Dials carry
 * their key as `data-dial`.
 */
export function DialHelpLine({ panel }: { panel: RefObject<HTMLElement | null> }) {
  const [key, setKey] = useState<string | null>(null);
  const [help, setHelp] = useState<Record<string, string> | null>(null);
  useEffect(() => {
    const element = panel.current;
    if (!element) return;
    const rest = ({ target }: Event) => {
      const dial = target instanceof Element ? target.closest("[data-dial]") : null;
      if (!(dial instanceof HTMLElement)) return;
      setKey(dial.dataset.dial ?? null);
      fetchHelp().then(setHelp, () => {});
    };
    element.addEventListener("pointerover", rest);
    element.addEventListener("focusin", rest);
    return () => {
      element.removeEventListener("pointerover", rest);
      element.removeEventListener("focusin", rest);
    };
  }, [panel]);
  return (
    <p
      id={HELP_ID}
      className="sticky bottom-0 min-h-11 border-t border-rule bg-panel px-4 py-1.5 text-sm leading-snug text-muted"
    >
      {key && help && Object.hasOwn(help, key) ? help[key] : "Point at a dial to read what it does."}
    </p>
  );
}
