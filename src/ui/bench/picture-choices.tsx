"use client";
import { Upload } from "lucide-react";
import { useRef, useState } from "react";
import { cutText } from "@/core/base/cut-text";
import { own, withOwn } from "@/core/base/own";

import { kindOf } from "@/core/kinds";
import { MOST } from "@/core/project/most";
import { categoryOfFile } from "@/core/project/picture-names";
import type { OwnPicture, Visual } from "@/core/project/schema";
import type { Pictured } from "@/core/rows/picture-key";
import { ICONS } from "@/core/scene/icons";
import { Choose } from "../shared/choose";
import { newId } from "../shared/ids";
import { useProject } from "../shared/project-context";

/** For each category an icon, or a picture that was uploaded: files are given to the categories they are named after. */
export function PictureChoices({ visual, pictured }: { visual: Visual; pictured: readonly Pictured[] }) {
  const uploaded = useProject((s) => s.document.pictures);
  const apply = useProject((s) => s.apply);
  const file = useRef<HTMLInputElement>(null);
  const [problem, setProblem] = useState("");
  const set = (key: string, value: string) => {
    apply({
      type: "change visual",
      id: visual.id,
      change: { pictures: withOwn(visual.pictures, key, value || null) },
    });
  };
  const labels = pictured.map(({ label }) => label);
  // Where there is one thing to have a picture, a single file is for it, whatever it is called.
  const isAlone = pictured.length === 1;
  const take = async (files: File[]) => {
    if (files.length === 0) return;
    // The parser is only fetched by those who upload something.
    const { pictureFrom } = await import("@/core/project/picture-file");
    const said: string[] = [];
    const pictures: OwnPicture[] = [];
    const of: Record<string, string> = {};
    for (const chosen of files) {
      if (uploaded.length + pictures.length >= MOST.project.pictures) {
        said.push(
          `A project has at most ${MOST.project.pictures} pictures: ${chosen.name} was not brought in.`,
        );
        continue;
      }
      const made = pictureFrom(new Uint8Array(await chosen.arrayBuffer()), chosen.name);
      if ("problem" in made) {
        said.push(made.problem);
        continue;
      }
      const id = newId();
      pictures.push({ id, name: cutText(chosen.name, 120), href: made.href });
      const named = categoryOfFile(chosen.name, labels);
      const category = pictured.find(({ label }) => label === named) ?? (isAlone ? pictured[0] : null);
      if (category) of[id] = category.key;
      else if (files.length > 1) said.push(`${chosen.name} is named after no category: choose one for it.`);
    }
    const bare = files.length > 1 ? pictured.filter(({ key }) => !Object.values(of).includes(key)) : [];
    if (bare.length) said.push(`Without a picture: ${bare.map(({ label }) => label).join(", ")}.`);
    setProblem(said.join(" "));
    if (pictures.length) apply({ type: "bring pictures", visual: visual.id, pictures, of });
  };
  const options = [
    { value: "", label: "none" },
    ...uploaded.map((p) => ({ value: p.id, label: p.name })),
    ...Object.keys(ICONS).map((name) => ({ value: `icon:${name}`, label: name.replaceAll("-", " ") })),
  ];
  return (
    <div className="flex max-h-96 flex-col gap-1.5 overflow-auto p-3">
      {kindOf(visual.kind).picturesByFocus && pictured.length > 1 && (
        <p className="text-sm text-muted">
          A picture stands in the middle while its part of the ring is under the pointer.
        </p>
      )}
      {pictured.map(({ key, label }) => (
        <div key={key} className="grid grid-cols-[1fr_130px] items-center gap-2 text-sm">
          <span className="truncate">{label}</span>
          <Choose
            label={`Picture of ${label}`}
            value={own(visual.pictures, key) ?? ""}
            options={options}
            onChange={(v) => set(key, v)}
          />
        </div>
      ))}
      <input
        ref={file}
        type="file"
        multiple
        accept=".svg,.png,image/svg+xml,image/png"
        className="sr-only"
        aria-label="Picture files"
        onChange={(e) => {
          void take([...(e.target.files ?? [])]);
          e.target.value = "";
        }}
      />
      <button type="button" className="button mt-1 self-start" onClick={() => file.current?.click()}>
        <Upload size={13} /> Bring SVG or PNG files
      </button>
      {problem && (
        <p role="alert" className="text-sm text-signal">
          {problem}
        </p>
      )}
    </div>
  );
}
