"use client";
import { useEffect, useRef, useState } from "react";
import { useProject } from "../shared/project-context";
import { useTheme } from "../shared/theme";
import { snapshotQuery, type Travelling } from "./snapshot-about";
import type { What } from "./what";

const TYPES = ["ready", "pick", "hover", "change", "error"] as const;

/** What an event of an element says, in a line. */
function lineOf({ type, detail }: CustomEvent): string {
  if (type === "hover") return detail.category ? `hover · ${detail.category.category}` : "";
  if (type === "pick") return `pick · ${detail.category}`;
  if (type === "error") return `error · ${detail.message}`;
  return type;
}

/** The element in a page as it will be: a page of its own, in a frame. */
export function PagePreview({
  what,
  travelling,
  stamp,
}: {
  what: What;
  travelling: Travelling;
  /** Changes whenever the page is to be made anew. */
  stamp: number;
}) {
  const id = useProject((s) => s.id);
  const appTheme = useTheme((s) => s.theme);
  const frame = useRef<HTMLIFrameElement>(null);
  const [told, setTold] = useState("");
  const theme = travelling.theme === "auto" ? appTheme : travelling.theme;
  const query = new URLSearchParams({
    ...snapshotQuery(what, { ...travelling, theme }),
    revision: String(stamp),
  });
  const address = `/p/${encodeURIComponent(id)}/hand-off/preview?${query}`;
  useEffect(() => {
    const inner = frame.current;
    if (!inner) return;
    const hear = (event: Event) => {
      const line = lineOf(event as CustomEvent);
      if (line) setTold(line);
    };
    const listen = () => {
      for (const element of inner.contentDocument?.querySelectorAll("cavlo-visual, cavlo-board") ?? [])
        for (const type of TYPES) element.addEventListener(type, hear);
    };
    inner.addEventListener("load", listen);
    return () => inner.removeEventListener("load", listen);
  }, []);
  return (
    <div className="flex min-h-0 flex-1 flex-col overflow-hidden rounded-md border border-rule">
      <p className="flex gap-2 border-b border-rule bg-well px-3 py-1.5 text-xs text-muted">
        <span>your page, as it will be</span>
        <span className="ml-auto truncate font-semibold" role="status">
          {told}
        </span>
      </p>
      <iframe
        ref={frame}
        title="Preview in a page"
        src={address}
        className="min-h-[360px] w-full flex-1 bg-white"
      />
    </div>
  );
}
