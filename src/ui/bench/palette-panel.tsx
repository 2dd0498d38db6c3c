"use client";
import { Download, Plus, Trash2, Upload } from "lucide-react";
import { useRef, useState } from "react";
import { LONGEST } from "@/core/project/most";
import { palettesFrom, tokensOf } from "@/core/scene/design-tokens";
import { PALETTES, type Palette, paletteOf } from "@/core/scene/palettes";
import { CommitField } from "../shared/commit-field";
import { freeLabel, newId } from "../shared/ids";
import { useProject } from "../shared/project-context";
import { saveBytes } from "../shared/save-bytes";
import { Swatches } from "./swatches";

/** The colours of one of the project's own palettes, light and night. */
function OwnPalette({ palette, onRemove }: { palette: Palette; onRemove: () => void }) {
  const apply = useProject((s) => s.apply);
  const put = (change: Partial<Palette>) =>
    apply({ type: "put palettes", palettes: [{ ...palette, ...change }] }, `palette ${palette.id}`);
  const row = (theme: "light" | "night") => (
    <div className="flex flex-wrap items-center gap-1">
      <span className="w-9 text-xs text-muted">{theme}</span>
      {palette[theme].map((color, i) => (
        <input
          // biome-ignore lint/suspicious/noArrayIndexKey: a colour has no other name than its place
          key={i}
          type="color"
          aria-label={`Colour ${i + 1} of ${palette.name}, ${theme}`}
          value={color}
          onChange={(e) => put({ [theme]: palette[theme].map((c, k) => (k === i ? e.target.value : c)) })}
          className="size-6 rounded-sm border border-rule bg-sheet p-0.5"
        />
      ))}
      {palette[theme].length < 24 && (
        <button
          type="button"
          className="icon-button size-6"
          aria-label={`Add a colour to ${palette.name}, ${theme}`}
          onClick={() => put({ [theme]: [...palette[theme], "#888888"] })}
        >
          <Plus size={12} />
        </button>
      )}
    </div>
  );
  return (
    <div className="flex flex-col gap-1.5 border-t border-rule p-3">
      <div className="flex items-center gap-1.5">
        <CommitField
          label="Name of the palette"
          value={palette.name}
          check={(t) => (t.trim() ? null : "A name is needed.")}
          longest={LONGEST.name}
          onCommit={(t) => put({ name: t.trim() })}
        />
        <button
          type="button"
          className="icon-button size-7"
          aria-label={`Remove ${palette.name}`}
          onClick={onRemove}
        >
          <Trash2 size={13} />
        </button>
      </div>
      {row("light")}
      {row("night")}
    </div>
  );
}

/** Chooses a palette; makes, changes, brings and takes away palettes of the project's own. */
export function PalettePanel({
  value,
  onChange,
}: {
  value: string;
  onChange: (value: string | null) => void;
}) {
  const own = useProject((s) => s.document.palettes);
  const apply = useProject((s) => s.apply);
  const file = useRef<HTMLInputElement>(null);
  const [said, setSaid] = useState("");
  const chosen = paletteOf(value, own);
  const mine = own.find((p) => p.id === value);
  const copy = () => {
    const made = {
      ...chosen,
      id: newId(),
      name: freeLabel(
        `${chosen.name} of our own`,
        own.map((p) => p.name),
      ),
    };
    if (apply({ type: "put palettes", palettes: [made] })) onChange(made.id);
  };
  const bring = async (chosenFile: File | undefined) => {
    if (!chosenFile) return;
    const read = palettesFrom(await chosenFile.text(), newId);
    if ("problem" in read) return setSaid(read.problem);
    if (!apply({ type: "put palettes", palettes: read.palettes })) return;
    setSaid(
      read.palettes.length === 1
        ? `${read.palettes[0].name} was brought in.`
        : `${read.palettes.length} palettes were brought in.`,
    );
  };
  return (
    <>
      <ul aria-label="Palettes" className="p-1.5">
        {[...PALETTES, ...own].map((p) => (
          <li key={p.id}>
            <button
              type="button"
              aria-pressed={p.id === chosen.id}
              onClick={() => onChange(p.id === PALETTES[0].id ? null : p.id)}
              className={`flex w-full items-center gap-2 rounded-sm px-2 py-1.5 text-left text-sm hover:bg-tint ${p.id === chosen.id ? "bg-tint font-semibold" : ""}`}
            >
              <span className="w-28 truncate">{p.name}</span>
              <Swatches palette={p} />
            </button>
          </li>
        ))}
      </ul>
      {mine && (
        <OwnPalette
          palette={mine}
          onRemove={() => {
            apply({ type: "remove palette", id: mine.id });
          }}
        />
      )}
      <div className="flex flex-wrap gap-1.5 border-t border-rule p-3">
        <button type="button" className="button" onClick={copy}>
          <Plus size={13} /> Make our own
        </button>
        <button type="button" className="button" onClick={() => file.current?.click()}>
          <Upload size={13} /> Bring tokens
        </button>
        <button
          type="button"
          className="button"
          onClick={() =>
            saveBytes(
              new TextEncoder().encode(JSON.stringify(tokensOf(own), null, 2)),
              "palettes.tokens.json",
              "application/design-tokens+json",
            )
          }
        >
          <Download size={13} /> Take tokens
        </button>
        <input
          ref={file}
          type="file"
          accept=".json,.tokens"
          className="sr-only"
          aria-label="Design-token file"
          onChange={(e) => void bring(e.target.files?.[0])}
        />
        {said && (
          <p role="status" className="w-full text-sm text-muted">
            {said}
          </p>
        )}
      </div>
    </>
  );
}
