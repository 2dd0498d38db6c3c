"use client";
import { Popover } from "radix-ui";
import { type ReactNode, useState } from "react";

const TONES = {
  data: "border-verdigris bg-tint text-verdigris-deep",
  input: "border-amber-line bg-amber-tint text-amber",
  missing: "border-dotted border-muted text-muted",
};

/**
 * A part of the sentence that can be changed in place: a button that opens its choices, which are a `PhrasePanel`. They
 * may come late: `fetch` is called as soon as somebody is about to open them.
 */
export function Phrase({
  label,
  text,
  tone = "data",
  why = null,
  fetch,
  children,
}: {
  label: string;
  text: string;
  tone?: keyof typeof TONES;
  /** Why what it says is not so, where it is not. */
  why?: string | null;
  fetch?: () => void;
  children: (close: () => void) => ReactNode;
}) {
  const [open, setOpen] = useState(false);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger
        aria-label={why ? `${label}: ${text}. ${why}` : `${label}: ${text}`}
        title={why ?? undefined}
        onPointerEnter={fetch}
        onFocus={fetch}
        className={`mx-0.5 inline-block max-w-[min(26rem,100%)] truncate rounded-t-sm border-b-2 px-1.5 align-bottom leading-7 font-semibold transition-colors hover:brightness-95 ${TONES[tone]}`}
      >
        {text}
      </Popover.Trigger>
      {open && children(() => setOpen(false))}
    </Popover.Root>
  );
}
