"use client";
import { Plus, RotateCcw, X } from "lucide-react";
import type { NumberFormat } from "@/core/base/number-format";
import { withoutZone, withZone } from "@/core/kinds/gauge/zones";
import { LONGEST } from "@/core/project/most";
import type { Zone } from "@/core/project/schema";
import { THEMES } from "@/core/scene/colour";
import type { Saying } from "@/core/view/sentence";
import { Choose } from "../shared/choose";
import { CommitField } from "../shared/commit-field";
import { AmountField } from "./amount-field";

const OWN = "own";
const TONES = [
  { value: "poor", label: "poor" },
  { value: "watch", label: "watch" },
  { value: "good", label: "good" },
  { value: "plain", label: "plain" },
  { value: OWN, label: "own …" },
];

/** The zones of a scale, each with its edge, its word and its tone. */
export function ZoneList({
  zones,
  format,
  saying,
  onChange,
}: {
  zones: Zone[];
  saying: Pick<Saying, "visual" | "project">;
  format: NumberFormat;
  onChange: (zones: Zone[]) => void;
}) {
  const set = (at: number, change: Partial<Zone>) =>
    onChange(zones.map((z, i) => (i === at ? { ...z, ...change } : z)));
  return (
    <div className="flex flex-col gap-2 p-3">
      {zones.map((zone, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a zone has no other name than its place
        <fieldset key={i} className="grid grid-cols-[84px_1fr_72px_24px] items-center gap-1.5">
          <legend className="sr-only">Zone {i + 1}</legend>
          {zone.to === null ? (
            <span className="text-sm text-muted">the rest</span>
          ) : (
            <AmountField
              label={`Zone ${i + 1} ends at`}
              amount={zone.to}
              format={format}
              saying={saying}
              onChange={(to) => set(i, { to })}
            />
          )}
          <CommitField
            label={`Word of zone ${i + 1}`}
            value={zone.word}
            longest={LONGEST.word}
            onCommit={(word) => set(i, { word })}
          />
          {zone.color === undefined ? (
            <Choose
              label={`Colour of zone ${i + 1}`}
              value={zone.tone}
              options={TONES}
              onChange={(tone) =>
                set(
                  i,
                  tone === OWN ? { color: THEMES.light.tones[zone.tone] } : { tone: tone as Zone["tone"] },
                )
              }
            />
          ) : (
            <div className="flex items-center gap-0.5">
              <input
                type="color"
                aria-label={`Colour of zone ${i + 1}`}
                value={zone.color}
                onChange={(e) => set(i, { color: e.target.value })}
                className="h-8 min-w-0 flex-1 rounded-sm border border-rule bg-sheet p-0.5"
              />
              <button
                type="button"
                className="icon-button size-6"
                aria-label={`Give zone ${i + 1} its tone back`}
                title="Back to its tone"
                onClick={() => set(i, { color: undefined })}
              >
                <RotateCcw size={12} />
              </button>
            </div>
          )}
          {zone.to !== null && (
            <button
              type="button"
              className="icon-button size-6"
              aria-label={`Remove zone ${i + 1}`}
              onClick={() => onChange(withoutZone(zones, i))}
            >
              <X size={13} />
            </button>
          )}
        </fieldset>
      ))}
      {zones.length < 8 && (
        <button type="button" className="button self-start" onClick={() => onChange(withZone(zones))}>
          <Plus size={13} /> Add a zone
        </button>
      )}
    </div>
  );
}
