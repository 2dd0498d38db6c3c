"use client";
import { memo, useEffect, useMemo, useRef, useState } from "react";
import type { Visual } from "@/core/project/schema";
import type { VisualData } from "@/core/rows/visual-data";
import { sceneOf } from "@/core/view/picture";
import { useDesign } from "./design";
import { StaticPicture } from "./static-picture";
import type { ThemeName } from "./theme";
import { useTurn } from "./turn";

const SIZE = { width: 220, height: 132 };
/** Pictures this near to what is seen of a list are drawn, in pixels. */
const NEAR = "240px";

/** Whether an element is seen, or nearly. */
function useSeen() {
  const element = useRef<HTMLSpanElement>(null);
  const [seen, setSeen] = useState(false);
  useEffect(() => {
    if (!element.current) return;
    const observer = new IntersectionObserver(([entry]) => setSeen(entry.isIntersecting), {
      rootMargin: NEAR,
    });
    observer.observe(element.current);
    return () => observer.disconnect();
  }, []);
  return { element, seen };
}

function Drawn({ visual, data, theme }: Props) {
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
        { size: SIZE, theme },
      ),
    [visual, data, design, theme],
  );
  return <StaticPicture scene={scene} label="" className="h-auto w-full" />;
}

interface Props {
  visual: Visual;
  data: VisualData;
  theme: ThemeName;
}

/**
 * A visual made small for a list: without its heading and border. It is only drawn while it is seen, and
 * after what its screen is for, so that a list of hundreds stays light.
 */
export const VisualThumbnail = memo(function VisualThumbnail(props: Props) {
  const { element, seen } = useSeen();
  const isOn = useTurn();
  return (
    <span ref={element} className="block w-full" style={{ aspectRatio: `${SIZE.width} / ${SIZE.height}` }}>
      {seen && isOn && <Drawn {...props} />}
    </span>
  );
});
