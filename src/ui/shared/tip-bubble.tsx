"use client";
import { Tooltip } from "radix-ui";
import type { Tip } from "./tip";

/** A text beside the element that it tells of. */
export function TipBubble({ tip: { text, box } }: { tip: Tip }) {
  return (
    <Tooltip.Provider>
      <Tooltip.Root open>
        <Tooltip.Trigger asChild>
          <span aria-hidden="true" className="pointer-events-none fixed" style={box} />
        </Tooltip.Trigger>
        <Tooltip.Portal>
          <Tooltip.Content
            sideOffset={6}
            collisionPadding={8}
            className="pointer-events-none z-60 max-w-80 rounded-sm border border-rule bg-sheet px-2 py-1 text-sm wrap-anywhere text-ink shadow-stage"
          >
            {text}
          </Tooltip.Content>
        </Tooltip.Portal>
      </Tooltip.Root>
    </Tooltip.Provider>
  );
}
