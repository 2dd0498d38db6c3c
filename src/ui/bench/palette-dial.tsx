"use client";
import { Popover } from "radix-ui";
import { paletteOf } from "@/core/scene/palettes";
import { later } from "../shared/fetched-later";
import { useProject } from "../shared/project-context";
import { stayForField } from "../shared/unsaved-field";
import { Swatches } from "./swatches";

const PalettePanel = later(() => import("./palette-panel").then((m) => m.PalettePanel));

/** Shows the palette of a visual, and opens the others. */
export function PaletteDial({
  id,
  value,
  onChange,
}: {
  id: string;
  value: string;
  onChange: (value: string | null) => void;
}) {
  const own = useProject((s) => s.document.palettes);
  const chosen = paletteOf(value, own);
  return (
    <Popover.Root>
      <Popover.Trigger
        id={id}
        className="field flex items-center gap-2 text-left"
        aria-label={`Palette: ${chosen.name}`}
      >
        <Swatches palette={chosen} />
        <span className="max-w-24 truncate text-sm">{chosen.name}</span>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={6}
          aria-label="Palettes"
          onEscapeKeyDown={stayForField}
          className="z-30 max-h-[var(--radix-popover-content-available-height)] w-80 overflow-auto rounded-md border border-rule bg-sheet shadow-stage"
        >
          <PalettePanel value={value} onChange={onChange} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
