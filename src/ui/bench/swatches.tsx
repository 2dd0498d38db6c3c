"use client";
import type { Palette } from "@/core/scene/palettes";
import { useTheme } from "../shared/theme";

/** The colours of a palette side by side. */
export function Swatches({ palette }: { palette: Palette }) {
  const theme = useTheme((s) => s.theme);
  return (
    <span aria-hidden="true" className="flex h-3.5 min-w-0 flex-1 overflow-hidden rounded-sm">
      {palette[theme].map((color, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: colours may repeat
        <span key={i} className="flex-1" style={{ background: color }} />
      ))}
    </span>
  );
}
