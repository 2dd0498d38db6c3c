"use client";
import { CircleAlert } from "lucide-react";
import { Popover } from "radix-ui";
import { memo } from "react";
import { own } from "@/core/base/own";
import type { Visual } from "@/core/project/schema";
import type { VisualData } from "@/core/rows/visual-data";
import { Findings } from "../bench/findings";
import { useFindings } from "../shared/review";
import { useTurn } from "../shared/turn";

interface Props {
  visual: Visual;
  data: VisualData;
}

/**
 * What the review says of a visual in its tile, while the board is arranged; nothing where all is well. It
 * draws the visual at several sizes: the board can be arranged before.
 */
export const TileFindings = memo(function TileFindings(props: Props) {
  return useTurn() ? <Found {...props} /> : null;
});

function Found({ visual, data }: Props) {
  const [found] = useFindings([visual], [data]);
  const open = found.filter((f) => own(visual.leftFindings, f.id) === undefined);
  if (open.length === 0) return null;
  const label = `${open.length} ${open.length === 1 ? "finding" : "findings"} in ${visual.name}`;
  return (
    <Popover.Root>
      <Popover.Trigger
        className="no-drag absolute top-1.5 left-1.5 flex h-6 items-center gap-1 rounded-full border border-signal bg-sheet px-2 text-xs text-signal"
        aria-label={label}
        title={label}
      >
        <CircleAlert size={12} /> {open.length}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={4}
          aria-label={label}
          className="no-drag z-40 w-80 rounded-md border border-rule bg-sheet px-3 py-2 shadow-stage"
        >
          <Findings visual={visual} found={found} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
