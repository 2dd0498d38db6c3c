"use client";
import { Plus, X } from "lucide-react";
import type { NumberFormat } from "@/core/base/number-format";
import { withoutZone, withZone } from "@/core/kinds/gauge/zones";
import type { Zone } from "@/core/project/schema";
import { readTyped } from "../../core/data/typed-number";
import { CommitField } from "../shared/commit-field";
import { Choose } from "../shared/labelled";

const TONES = [
  { value: "poor", label: "poor" },
  { value: "watch", label: "watch" },
  { value: "good", label: "good" },
  { value: "plain", label: "plain" },
];

/** The zones of a scale, each with its edge, its word and its tone. */
export function ZoneList({
  zones,
  format,
  onChange,
}: {
  zones: Zone[];
  format: NumberFormat;
  onChange: (zones: Zone[]) => void;
}) {
  const percent = format.style === "percent";
  const set = (at: number, change: Partial<Zone>) =>
    onChange(zones.map((z, i) => (i === at ? { ...z, ...change } : z)));
  return (
    <div className="flex flex-col gap-2 p-3">
      {zones.map((zone, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a zone has no other name than its place
        <fieldset key={i} className="grid grid-cols-[70px_1fr_72px_24px] items-center gap-1.5">
          <legend className="sr-only">Zone {i + 1}</legend>
          {zone.to === null ? (
            <span className="text-sm text-muted">the rest</span>
          ) : (
            <CommitField
              mono
              label={`Zone ${i + 1} ends at`}
              value={percent ? `${Number((zone.to * 100).toPrecision(6))} %` : String(zone.to)}
              check={(t) => (readTyped(t, percent) === null ? "A number" : null)}
              onCommit={(t) => set(i, { to: readTyped(t, percent) })}
            />
          )}
          <CommitField
            label={`Word of zone ${i + 1}`}
            value={zone.word}
            onCommit={(word) => set(i, { word: word.slice(0, 60) })}
          />
          <Choose
            label={`Colour of zone ${i + 1}`}
            value={zone.tone}
            options={TONES}
            onChange={(tone) => set(i, { tone: tone as Zone["tone"] })}
          />
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
          <Plus size={13} /> Zone
        </button>
      )}
    </div>
  );
}
