"use client";
import type { Ground } from "@/core/project/schema";
import { contrast } from "@/core/scene/colour";
import { groundColours } from "@/core/view/board-look";
import { Choose } from "../shared/choose";
import { Labelled } from "../shared/labelled";

const NAMES = [
  { value: "none", label: "None" },
  { value: "panel", label: "Panel" },
  { value: "sheet", label: "Sheet" },
  { value: "well", label: "Well" },
  { value: "tint", label: "Tint" },
  { value: "own", label: "Colours of its own" },
];

/** A ground: one with a name, or a colour for the day and one for the night. */
export function GroundField({
  label,
  value,
  onChange,
}: {
  label: string;
  value: Ground;
  /** `group`: changes that follow each other are one. */
  onChange: (ground: Ground, group?: string) => void;
}) {
  const own = typeof value === "object" ? value : null;
  const worst = own
    ? (["light", "night"] as const).map((theme) => {
        const painted = groundColours(own, theme);
        return painted ? contrast(painted.background, painted.ink) : 21;
      })
    : [];
  const choose = (next: string) => {
    if (next !== "own") return onChange(next as Exclude<Ground, object>);
    const [light, night] = (["light", "night"] as const).map(
      (theme) => groundColours(value === "none" ? "sheet" : value, theme)?.background ?? "#ffffff",
    );
    onChange({ light, night });
  };
  return (
    <>
      <Labelled label={label}>
        {(id) => <Choose id={id} value={own ? "own" : (value as string)} options={NAMES} onChange={choose} />}
      </Labelled>
      {own &&
        (["light", "night"] as const).map((theme) => (
          <Labelled key={theme} label={theme === "light" ? "By day" : "At night"}>
            {(id) => (
              <input
                id={id}
                type="color"
                value={own[theme]}
                onChange={(e) => onChange({ ...own, [theme]: e.target.value }, `${label} ${theme}`)}
                className="h-7 w-full rounded-sm border border-rule bg-sheet p-0.5"
              />
            )}
          </Labelled>
        ))}
      {worst.some((c) => c < 4.5) && (
        <p className="text-xs text-signal">
          Texts are hard to read on it: {Math.min(...worst).toFixed(1)} to 1, where 4.5 to 1 is needed.
        </p>
      )}
    </>
  );
}
