"use client";
import { ToggleGroup } from "radix-ui";
import { useMemo, useState } from "react";
import { frameProblem } from "@/core/project/frame-limits";
import { editByHandle } from "@/core/project/handle-edits";
import type { VisualData } from "@/core/rows/visual-data";
import { litScene } from "@/core/scene/lit-scene";
import type { Focus, Handle } from "@/core/scene/marks";
import { SIGHTS } from "@/core/scene/sight";
import { sceneOf } from "@/core/view/picture";
import { trialsOf } from "@/core/view/trials";
import { Busy } from "../shared/busy";
import { CommitField } from "../shared/commit-field";
import { useDesign } from "../shared/design";
import { LivePicture } from "../shared/live-picture";
import { byCharts } from "../shared/painters";
import { useProject } from "../shared/project-context";
import { useSize } from "../shared/size";
import { useTheme } from "../shared/theme";
import { Handles } from "./handles";
import { useVisual } from "./sentences";

type View = "light" | "night" | "grey" | "protan" | "deutan" | "tritan";
const VIEWS: { id: View; label: string }[] = [
  { id: "light", label: "Light" },
  { id: "night", label: "Night" },
  { id: "deutan", label: "Red-green: deuteranopia" },
  { id: "protan", label: "Red-green: protanopia" },
  { id: "tritan", label: "Blue-yellow: tritanopia" },
  { id: "grey", label: "Grey" },
];

/** Grey is the relative luminance of WCAG 2. */
const GREY = [0.2126, 0.7152, 0.0722, 0.2126, 0.7152, 0.0722, 0.2126, 0.7152, 0.0722];
/** The matrix of an SVG filter out of that of linear RGB: no offset, and what is clear stays so. */
const filterMatrix = (m: readonly number[]) =>
  `${[0, 3, 6].map((i) => `${m[i]} ${m[i + 1]} ${m[i + 2]} 0 0`).join(" ")} 0 0 0 1 0`;
const MATRICES: Partial<Record<View, string>> = {
  protan: filterMatrix(SIGHTS.protan),
  deutan: filterMatrix(SIGHTS.deutan),
  tritan: filterMatrix(SIGHTS.tritan),
  grey: filterMatrix(GREY),
};

// Fetched at once, beside the numbers that it will draw.
if (typeof window !== "undefined") void byCharts().catch(() => {});

/** Around the picture on the stage, in pixels. */
const MARGIN = 40;
/** A picture that fits is never drawn smaller than this. */
const LEAST_SCALE = 0.25;

interface Props {
  id: string;
  data: VisualData;
  /** Whether the answer that the data will be is still under way. */
  pending: boolean;
  /** The trial that stands on the stage in the place of the data, or null. */
  trial: string | null;
  lit: string | null;
  onLit: (part: string | null) => void;
}

/** Where the visual is drawn at its true size, with handles, in light, at night and as others see it. */
export function Stage({ id, data, pending, trial, lit, onLit }: Props) {
  const visual = useVisual(id);
  const apply = useProject((s) => s.apply);
  const design = useDesign();
  // The stage begins as the application is.
  const [view, setView] = useState<View>(useTheme((s) => s.theme));
  const [focus, setFocus] = useState<Focus | null>(null);
  const shownData = useMemo(
    () => (trial ? trialsOf(visual, data).find((t) => t.id === trial)?.data : null) ?? data,
    [visual, data, trial],
  );
  const scene = useMemo(
    () => sceneOf(visual, shownData, design, { theme: view === "night" ? "night" : "light", focus }),
    [visual, shownData, design, view, focus],
  );
  const shown = useMemo(() => litScene(scene, lit), [scene, lit]);
  const [fits, setFits] = useState(true);
  const { element, size: room } = useSize<HTMLDivElement>();
  const { width, height } = visual.size;
  const fitting = room
    ? Math.max(LEAST_SCALE, Math.min(1, (room.width - MARGIN) / width, (room.height - MARGIN) / height))
    : 1;
  const scale = fits ? fitting : 1;
  const target = visual.target;
  const handles = scene.handles.filter((h) => h.edit.type !== "target" || (target && !("measure" in target)));
  const move = (handle: Handle, value: number) => {
    apply(editByHandle(visual, handle.edit, value), `handle ${visual.id} ${handle.id}`);
  };
  const size = (key: "width" | "height") => (
    <div className="w-16 [&_.field]:h-7 [&_.field]:px-1.5 [&_.field]:text-center">
      <CommitField
        mono
        label={key === "width" ? "Width" : "Height"}
        value={String(visual.size[key])}
        check={(t) => frameProblem(key, t)}
        onCommit={(t) =>
          apply({
            type: "change visual",
            id: visual.id,
            change: { size: { ...visual.size, [key]: Math.round(Number(t)) } },
          })
        }
      />
    </div>
  );
  return (
    <section aria-label="Stage" className="areas-stage relative flex min-h-60 flex-1 flex-col">
      <svg aria-hidden="true" className="absolute size-0">
        <title>Views</title>
        {Object.entries(MATRICES).map(([id, values]) => (
          <filter key={id} id={`view-${id}`} colorInterpolationFilters="linearRGB">
            <feColorMatrix type="matrix" values={values} />
          </filter>
        ))}
      </svg>
      <div
        aria-hidden="true"
        className="h-2 border-b border-rule"
        style={{
          backgroundImage: "repeating-linear-gradient(90deg, var(--rule) 0 1px, transparent 1px 8px)",
        }}
      />
      <div ref={element} className="min-h-0 flex-1">
        <div className="stage-grid grid size-full place-items-center overflow-auto p-5">
          <div style={{ width: width * scale, height: height * scale }}>
            <div
              // Drawn anew at its scale: a layer of its own would be stretched.
              className={`relative origin-top-left shadow-stage ${scale === 1 ? "will-change-transform" : ""}`}
              style={{
                width,
                height,
                transform: scale === 1 ? undefined : `scale(${scale})`,
                borderRadius: scene.border?.radius,
                filter: view in MATRICES ? `url(#view-${view})` : undefined,
              }}
            >
              <Busy pending={pending}>
                <LivePicture
                  by={byCharts}
                  scene={shown}
                  onFocus={setFocus}
                  onPart={onLit}
                  name={visual.name}
                />
              </Busy>
              <Handles handles={handles} scale={scale} onMove={move} />
            </div>
          </div>
        </div>
      </div>
      <div className="flex items-center gap-1.5 px-4 py-2">
        <ToggleGroup.Root
          type="single"
          aria-label="See the stage as"
          value={view}
          onValueChange={(next) => next && setView(next as View)}
          className="flex min-w-0 flex-wrap gap-1.5 narrow:flex-nowrap narrow:overflow-x-auto"
        >
          {VIEWS.map((v) => (
            <ToggleGroup.Item
              key={v.id}
              value={v.id}
              className="h-7 shrink-0 rounded-sm border border-rule bg-sheet px-2 text-xs whitespace-nowrap text-muted hover:text-ink data-[state=on]:border-active data-[state=on]:bg-active data-[state=on]:text-on-active"
            >
              {v.label}
            </ToggleGroup.Item>
          ))}
        </ToggleGroup.Root>
        {fitting < 1 && (
          <button
            type="button"
            aria-pressed={fits}
            title={fits ? `Drawn at ${Math.round(scale * 100)} % to fit` : "Drawn at its true size"}
            className={`ml-auto h-7 shrink-0 rounded-sm border px-2 text-xs ${fits ? "border-verdigris bg-tint text-verdigris-deep" : "border-rule bg-sheet text-muted hover:text-ink"}`}
            onClick={() => setFits(!fits)}
          >
            Fit{fits && ` · ${Math.round(scale * 100)} %`}
          </button>
        )}
        <div className={`${fitting < 1 ? "" : "ml-auto "}flex shrink-0 gap-1 font-mono text-xs text-muted`}>
          {size("width")}
          <span className="leading-7">×</span>
          {size("height")}
        </div>
      </div>
    </section>
  );
}
