"use client";
import { Save, Trash2 } from "lucide-react";
import { memo, useCallback, useMemo, useState } from "react";
import { kindOf } from "@/core/kinds";
import { FINISHES } from "@/core/kinds/finishes";
import { LONGEST } from "@/core/project/most";

import type { Visual } from "@/core/project/schema";
import type { VisualData } from "@/core/rows/visual-data";
import { changesKind, lookOf } from "@/core/view/look";
import { sceneOf } from "@/core/view/picture";
import { CommitField } from "../shared/commit-field";
import { useDesign } from "../shared/design";
import { freeLabel, newId } from "../shared/ids";
import { useProject } from "../shared/project-context";
import { useSettled } from "../shared/settled";
import { StaticPicture } from "../shared/static-picture";
import { useTheme } from "../shared/theme";
import { useVisual } from "./sentences";

interface PicturesProps {
  /** The visual as it was when its dials last rested. */
  shown: Visual;
  finish: string;
  all: { id: string; name: string }[];
  data: VisualData;
  onChoose: (finish: string) => void;
}

/** The visual in each finish, as buttons; drawn again when the dials rest. */
const FinishPictures = memo(function FinishPictures({ shown, finish, all, data, onChoose }: PicturesProps) {
  const design = useDesign();
  const theme = useTheme((s) => s.theme);
  const scenes = useMemo(() => {
    const small = {
      "heading.shown": false,
      "frame.border": false,
      "frame.padding": 4,
      "legend.place": "none",
      "labels.content": "none",
      "axis.names": false,
    };
    return all.map((f) =>
      sceneOf({ ...shown, finish: f.id, dials: { ...shown.dials, ...small } }, data, design, {
        size: { width: 120, height: 90 },
        theme,
      }),
    );
  }, [all, shown, data, design, theme]);
  return (
    <div className="grid grid-cols-4 gap-1.5 pt-1">
      {all.map((f, i) => (
        <button
          key={f.id}
          type="button"
          aria-pressed={f.id === finish}
          onClick={() => onChoose(f.id)}
          className={`min-w-0 overflow-hidden rounded-sm border bg-sheet text-left ${f.id === finish ? "border-verdigris outline-2 outline-verdigris" : "border-rule hover:border-muted"}`}
        >
          <StaticPicture scene={scenes[i]} label="" className="h-auto w-full" />
          <span className="block truncate px-1 pb-0.5 text-xs">{f.name}</span>
        </button>
      ))}
    </div>
  );
});

/** The finishes as this visual would look in them; its own look can be kept as one. */
export const FinishPanel = memo(function FinishPanel({ id, data }: { id: string; data: VisualData }) {
  const visual = useVisual(id);
  const design = useDesign();
  const apply = useProject((s) => s.apply);
  const [naming, setNaming] = useState(false);
  const settled = useSettled(visual);
  const shown = settled.id === visual.id ? settled : visual;
  const all = useMemo(
    () => [
      ...FINISHES.map(({ id: key, name }) => ({ id: key, name })),
      ...design.finishes.map((f) => ({ id: f.id, name: f.name })),
    ],
    [design],
  );
  const choose = useCallback(
    (finish: string) => apply({ type: "change visual", id, change: { finish } }),
    [apply, id],
  );
  const mine = design.finishes.find((f) => f.id === visual.finish);
  const baseName = FINISHES.find((f) => f.id === mine?.base)?.name ?? "";
  const byHand = Object.keys(lookOf(visual)).length;
  return (
    <section aria-label="Finish" className="border-b border-rule px-4 py-3">
      <div className="flex h-6 items-center justify-between">
        <h3 className="section-title">Finish</h3>
        {byHand > 0 && (
          <span className="text-xs text-muted">
            {byHand === 1 ? "1 dial set by hand" : `${byHand} dials set by hand`}
          </span>
        )}
      </div>
      <FinishPictures shown={shown} finish={visual.finish} all={all} data={data} onChoose={choose} />
      <div className="flex flex-wrap items-center gap-1.5 pt-2">
        {mine && !changesKind(mine, visual.kind) && (
          <p role="status" className="w-full text-sm text-muted">
            {mine.name} sets no dial that {kindOf(visual.kind).phrase} has: only {baseName} shows, which it is
            made from.
          </p>
        )}
        {mine && (
          <>
            <div className="w-full">
              <CommitField
                label="Name of the finish"
                value={mine.name}
                check={(t) => (t.trim() ? null : "A name is needed.")}
                longest={LONGEST.name}
                onCommit={(t) => apply({ type: "rename finish", id: mine.id, name: t.trim() })}
              />
            </div>
            {byHand > 0 && (
              <button
                type="button"
                className="button"
                onClick={() => apply({ type: "update finish", visual: id, look: lookOf(visual) })}
              >
                <Save size={13} /> Put the look into it
              </button>
            )}
            <button
              type="button"
              className="icon-button size-7"
              aria-label={`Remove the finish ${mine.name}`}
              onClick={() => apply({ type: "remove finish", id: mine.id })}
            >
              <Trash2 size={13} />
            </button>
          </>
        )}
        {naming ? (
          <form
            className="flex w-full gap-1.5"
            onSubmit={(e) => {
              e.preventDefault();
              const typed = String(new FormData(e.currentTarget).get("name") ?? "").trim();
              const name = freeLabel(
                typed || "Our finish",
                all.map((f) => f.name),
              );
              const finish = { id: newId(), name };
              // The name stays where it was not taken.
              if (apply({ type: "save finish", visual: id, finish, look: lookOf(visual) })) setNaming(false);
            }}
          >
            <input
              name="name"
              aria-label="Name of the new finish"
              defaultValue="Our finish"
              maxLength={LONGEST.name}
              ref={(field) => field?.focus()}
              className="field"
              onKeyDown={(e) => e.key === "Escape" && setNaming(false)}
            />
            <button type="submit" className="button">
              Keep
            </button>
          </form>
        ) : (
          byHand > 0 && (
            <button type="button" className="button" onClick={() => setNaming(true)}>
              <Save size={13} /> Keep this look as a finish
            </button>
          )
        )}
      </div>
    </section>
  );
});
