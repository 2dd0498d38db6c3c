"use client";
import { Popover } from "radix-ui";
import type { ReactNode } from "react";
import { stayForField } from "./unsaved-field";

/** What a phrase opens: its choices, under it. */
export const PhrasePanel = ({ label, children }: { label: string; children: ReactNode }) => (
  <Popover.Portal>
    <Popover.Content
      align="start"
      sideOffset={6}
      aria-label={label}
      onEscapeKeyDown={stayForField}
      className="z-30 w-80 rounded-md border border-rule bg-sheet text-base shadow-stage"
    >
      {children}
    </Popover.Content>
  </Popover.Portal>
);
