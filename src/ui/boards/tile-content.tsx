"use client";
import { useEffect, useMemo, useRef, useState } from "react";
import type { Visual } from "@/core/project/schema";
import type { RowKey } from "@/core/rows/row-key";
import type { VisualData } from "@/core/rows/visual-data";
import { sceneOf } from "@/core/view/picture";
import { useDesign } from "../shared/design";
import { LivePicture } from "../shared/live-picture";
import { useTheme } from "../shared/theme";

/** The size of an element as it is laid out. */
function useSize(): [React.RefObject<HTMLDivElement | null>, { width: number; height: number } | null] {
  const ref = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState<{ width: number; height: number } | null>(null);
  useEffect(() => {
    if (!ref.current) return;
    const observer = new ResizeObserver(([entry]) => {
      const { width, height } = entry.contentRect;
      setSize({ width: Math.max(96, Math.round(width)), height: Math.max(72, Math.round(height)) });
    });
    observer.observe(ref.current);
    return () => observer.disconnect();
  }, []);
  return [ref, size];
}

/** A visual that fills its tile. */
export function VisualTile({
  visual,
  data,
  onPick,
  still = false,
}: {
  visual: Visual;
  data: VisualData;
  /** Whether the tile is being arranged, and is no picture to walk through. */
  still?: boolean;
  onPick?: (key: RowKey) => void;
}) {
  const theme = useTheme((s) => s.theme);
  const design = useDesign();
  const [ref, size] = useSize();
  const [focus, setFocus] = useState<RowKey | null>(null);
  const scene = useMemo(
    () => (size ? sceneOf(visual, data, design, { size, theme, focus }) : null),
    [visual, data, design, size, theme, focus],
  );
  return (
    <div ref={ref} className="size-full overflow-hidden">
      {scene && (
        <LivePicture
          scene={scene}
          onFocus={setFocus}
          onPick={onPick}
          name={still ? undefined : visual.name}
        />
      )}
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
