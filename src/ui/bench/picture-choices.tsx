"use client";
import { Upload } from "lucide-react";
import { useRef, useState } from "react";
import { own, withOwn } from "@/core/base/own";

import type { Visual } from "@/core/project/schema";
import { ICONS } from "@/core/scene/icons";

import { newId } from "../shared/ids";
import { Choose } from "../shared/labelled";
import { useProject } from "../shared/project-context";

/** For each category an icon, or a picture that was uploaded. */
export function PictureChoices({ visual, labels }: { visual: Visual; labels: readonly string[] }) {
  const uploaded = useProject((s) => s.document.pictures);
  const apply = useProject((s) => s.apply);
  const file = useRef<HTMLInputElement>(null);
  const [problem, setProblem] = useState("");
  const set = (label: string, value: string) => {
    apply({
      type: "change visual",
      id: visual.id,
      change: { pictures: withOwn(visual.pictures, label, value || null) },
    });
  };
  const take = async (chosen: File | undefined) => {
    if (!chosen) return;
    // The parser is only fetched by those who upload something.
    const { pictureFrom } = await import("@/core/project/picture-file");
    const made = pictureFrom(new Uint8Array(await chosen.arrayBuffer()), chosen.name);
    if ("problem" in made) return setProblem(made.problem);
    setProblem("");
    apply({
      type: "add picture",
      picture: { id: newId(), name: chosen.name.slice(0, 120), href: made.href },
    });
  };
  const options = [
    { value: "", label: "none" },
    ...uploaded.map((p) => ({ value: p.id, label: p.name })),
    ...Object.keys(ICONS).map((name) => ({ value: `icon:${name}`, label: name.replaceAll("-", " ") })),
  ];
  return (
    <div className="flex max-h-96 flex-col gap-1.5 overflow-auto p-3">
      {labels.map((label) => (
        <div key={label} className="grid grid-cols-[1fr_130px] items-center gap-2 text-sm">
          <span className="truncate">{label}</span>
          <Choose
            label={`Picture of ${label}`}
            value={own(visual.pictures, label) ?? ""}
            options={options}
            onChange={(v) => set(label, v)}
          />
        </div>
      ))}
      <input
        ref={file}
        type="file"
        accept=".svg,.png,image/svg+xml,image/png"
        className="sr-only"
        aria-label="Picture file"
        onChange={(e) => void take(e.target.files?.[0])}
      />
      <button type="button" className="button mt-1 self-start" onClick={() => file.current?.click()}>
        <Upload size={13} /> Bring an SVG or PNG
      </button>
      {problem && (
        <p role="alert" className="text-sm text-signal">
          {problem}
        </p>
      )}
    </div>
  );
}
