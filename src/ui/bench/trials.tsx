"use client";
import { memo, useMemo, useState } from "react";
import type { VisualData } from "@/core/rows/visual-data";
import { sceneOf } from "@/core/view/picture";
import { trialsOf } from "@/core/view/trials";
import { useDesign } from "../shared/design";
import { useSettled } from "../shared/settled";
import { StaticPicture } from "../shared/static-picture";
import { useTheme } from "../shared/theme";
import { useVisual } from "./sentences";

/** The visual at values and shapes of data that it has not met yet; one can be put on the stage. */
export const Trials = memo(function Trials({
  id,
  data,
  chosen,
  onChoose,
}: {
  id: string;
  data: VisualData;
  chosen: string | null;
  onChoose: (id: string | null) => void;
}) {
  const visual = useVisual(id);
  const theme = useTheme((s) => s.theme);
  const design = useDesign();
  const [open, setOpen] = useState(true);
  // While dials turn, the stage goes first and the trials follow.
  const settled = useSettled(visual);
  // A visual just chosen is shown at once.
  const shown = settled.id === visual.id ? settled : visual;
  const trials = useMemo(() => trialsOf(shown, data), [shown, data]);
  const scenes = useMemo(() => {
    const small = {
      ...shown,
      dials: { ...shown.dials, "heading.shown": false, "frame.border": false, "frame.padding": 6 },
    };
    return trials.map((t) => sceneOf(small, t.data, design, { size: { width: 220, height: 140 }, theme }));
  }, [trials, shown, design, theme]);
  if (trials.length === 0) return null;
  return (
    <section aria-label="Trials" className="border-t border-rule bg-panel px-4 py-2.5">
      <div className="flex items-baseline gap-2">
        <button
          type="button"
          className="section-title min-h-6"
          aria-expanded={open}
          onClick={() => setOpen(!open)}
        >
          Trials
        </button>
        <span className="truncate text-xs text-muted">
          the same visual at values it has not met yet; choose one to see it on the stage
        </span>
      </div>
      {open && (
        <div className="mt-2 grid grid-cols-6 gap-2 narrow:grid-cols-3">
          {trials.map((trial, i) => (
            <button
              key={trial.id}
              type="button"
              aria-pressed={chosen === trial.id}
              onClick={() => onChoose(chosen === trial.id ? null : trial.id)}
              className={`rounded-md border bg-sheet p-1.5 text-left ${chosen === trial.id ? "border-verdigris outline-2 outline-verdigris" : "border-rule hover:border-muted"}`}
            >
              <span className="block truncate pb-1 text-xs text-muted">{trial.label}</span>
              <StaticPicture scene={scenes[i]} label="" className="h-auto w-full" />
            </button>
          ))}
        </div>
      )}
    </section>
  );
});
