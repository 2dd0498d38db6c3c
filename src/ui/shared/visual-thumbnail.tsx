"use client";
import { memo, useMemo } from "react";
import type { Visual } from "@/core/project/schema";
import type { VisualData } from "@/core/rows/visual-data";
import { sceneOf } from "@/core/view/picture";
import { useDesign } from "./design";
import { StaticPicture } from "./static-picture";
import type { ThemeName } from "./theme";

/** A visual made small for a list: without its heading and border, as large as it needs to be told. */
export const VisualThumbnail = memo(function VisualThumbnail({
  visual,
  data,
  theme,
}: {
  visual: Visual;
  data: VisualData;
  theme: ThemeName;
}) {
  const design = useDesign();
  const scene = useMemo(
    () =>
      sceneOf(
        {
          ...visual,
          dials: { ...visual.dials, "heading.shown": false, "frame.border": false, "frame.padding": 6 },
        },
        data,
        design,
        { size: { width: 220, height: 132 }, theme },
      ),
    [visual, data, design, theme],
  );
  return <StaticPicture scene={scene} label="" className="h-auto w-full" />;
});
