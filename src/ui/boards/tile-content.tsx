"use client";
import { useMemo, useState } from "react";
import type { Visual } from "@/core/project/schema";
import type { RowKey } from "@/core/rows/row-key";
import type { VisualData } from "@/core/rows/visual-data";
import { sceneOf } from "@/core/view/picture";
import { useDesign } from "../shared/design";
import { LivePicture } from "../shared/live-picture";
import { byCharts } from "../shared/painters";
import { useSize } from "../shared/size";
import { useTheme } from "../shared/theme";

/** A tile is never drawn smaller than this. */
const LEAST = { width: 96, height: 72 };

/** A visual that fills its tile. */
export function VisualTile({ visual, data }: { visual: Visual; data: VisualData }) {
  const theme = useTheme((s) => s.theme);
  const design = useDesign();
  const { element, size: room } = useSize<HTMLDivElement>();
  const width = room && Math.max(LEAST.width, Math.round(room.width));
  const height = room && Math.max(LEAST.height, Math.round(room.height));
  const [focus, setFocus] = useState<RowKey | null>(null);
  const scene = useMemo(
    () => (width && height ? sceneOf(visual, data, design, { size: { width, height }, theme, focus }) : null),
    [visual, data, design, width, height, theme, focus],
  );
  return (
    <div ref={element} className="size-full overflow-hidden">
      {scene && <LivePicture by={byCharts} scene={scene} onFocus={setFocus} />}
    </div>
  );
}

/** A text that fills its tile: plain paragraphs, never markup. */
export function TextTile({ text }: { text: string }) {
  return (
    <div className="size-full overflow-auto rounded-lg p-4 text-md leading-relaxed whitespace-pre-wrap text-muted">
      {text || "An empty text."}
    </div>
  );
}
