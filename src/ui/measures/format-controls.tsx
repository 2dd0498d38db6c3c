"use client";
import type { NumberFormat } from "@/core/base/number-format";
import { formatNumber } from "@/core/base/number-format";
import { LONGEST } from "@/core/project/most";
import { Choose } from "../shared/choose";
import { CommitField } from "../shared/commit-field";
import { Labelled } from "../shared/labelled";

const STYLES = [
  { value: "number", label: "number" },
  { value: "percent", label: "percent" },
  { value: "currency", label: "currency" },
  { value: "duration", label: "duration, from minutes" },
];
const UNITS = [
  { value: "none", label: "none" },
  { value: "automatic", label: "automatic" },
  { value: "thousand", label: "thousand" },
  { value: "million", label: "million" },
  { value: "billion", label: "billion" },
];
const DECIMALS = [
  { value: "automatic", label: "automatic: as values are told apart" },
  ...Array.from({ length: 7 }, (_, i) => ({ value: String(i), label: String(i) })),
];
const LOCALES = [
  { value: "plain", label: "1 234.5" },
  { value: "en-GB", label: "1,234.5" },
  { value: "de-DE", label: "1.234,5" },
  { value: "fr-FR", label: "1 234,5" },
  { value: "de-CH", label: "1’234.5" },
];

/** Numbers of usual size, one below zero among them, that show what a format does. */
const SAMPLES: Record<NumberFormat["style"], number[]> = {
  number: [0.5, 1234.5, -9_876_543],
  currency: [0.5, 1234.5, -9_876_543],
  percent: [0.034, 0.987, -1.12],
  duration: [0.5, 95, 4321],
};

/** The dials of a number format, with a preview. */
export function FormatControls({
  format,
  onChange,
}: {
  format: NumberFormat;
  onChange: (format: NumberFormat) => void;
}) {
  const set = (change: Partial<NumberFormat>) => onChange({ ...format, ...change });
  return (
    <>
      <Labelled label="Format">
        {(id) => (
          <Choose
            id={id}
            value={format.style}
            options={STYLES}
            onChange={(style) =>
              set({
                style: style as NumberFormat["style"],
                ...(style === "percent" ? { units: "none", decimals: "automatic" } : {}),
              })
            }
          />
        )}
      </Labelled>
      {format.style !== "duration" && (
        <Labelled label="Decimals">
          {(id) => (
            <Choose
              id={id}
              value={String(format.decimals)}
              options={DECIMALS}
              onChange={(d) => set({ decimals: d === "automatic" ? d : Number(d) })}
            />
          )}
        </Labelled>
      )}
      {(format.style === "number" || format.style === "currency") && (
        <Labelled label="Units">
          {(id) => (
            <Choose
              id={id}
              value={format.units}
              options={UNITS}
              onChange={(units) => set({ units: units as NumberFormat["units"] })}
            />
          )}
        </Labelled>
      )}
      {format.style === "currency" && (
        <Labelled label="Currency">
          {(id) => (
            <CommitField
              id={id}
              mono
              value={format.currency}
              check={(t) => (/^[A-Z]{3}$/.test(t) ? null : "Three capitals, for example EUR.")}
              onCommit={(currency) => set({ currency })}
            />
          )}
        </Labelled>
      )}
      <Labelled label="Digits">
        {(id) => (
          <Choose id={id} value={format.locale} options={LOCALES} onChange={(locale) => set({ locale })} />
        )}
      </Labelled>
      <Labelled label="Before, after">
        {(id) => (
          <div className="grid grid-cols-2 gap-1.5">
            <CommitField
              id={id}
              value={format.prefix}
              longest={LONGEST.affix}
              onCommit={(prefix) => set({ prefix })}
            />
            <CommitField
              label="After"
              value={format.suffix}
              longest={LONGEST.affix}
              onCommit={(suffix) => set({ suffix })}
            />
          </div>
        )}
      </Labelled>
      <p
        role="group"
        aria-label="Preview"
        className="flex justify-between gap-2 rounded-sm bg-well px-2 py-1.5 font-mono text-sm"
      >
        {SAMPLES[format.style].map((n) => (
          <span key={n}>{formatNumber(n, format)}</span>
        ))}
      </p>
    </>
  );
}
