"use client";
import { Copy, Download } from "lucide-react";
import { frameProblem } from "@/core/project/frame-limits";
import type { Visual } from "@/core/project/schema";
import { api } from "../shared/api";
import { Choose } from "../shared/choose";
import { CommitField } from "../shared/commit-field";
import { Labelled } from "../shared/labelled";
import { toast } from "../shared/notice";
import { useProject, useProjectStore } from "../shared/project-context";
import { AddressLine } from "./address-line";
import { useTaking } from "./taking";
import { ThemeChoice } from "./theme-choice";

/** How a picture is taken out. */
export interface PictureLook {
  theme: "light" | "night";
  size: { width: number; height: number } | null;
  scale: string;
  withFonts: boolean;
}

/** A visual as SVG or PNG. */
export function PicturePanel({
  visual,
  look,
  onChange,
}: {
  visual: Visual;
  look: PictureLook;
  onChange: (look: PictureLook) => void;
}) {
  const id = useProject((s) => s.id);
  const store = useProjectStore();
  const take = useTaking();
  const { theme, scale, withFonts } = look;
  const now = look.size ?? visual.size;
  const address = (form: "svg" | "png", download: boolean) =>
    api.visualAddress(id, visual.id, form, {
      ...now,
      theme,
      ...(form === "png" ? { scale } : {}),
      ...(form === "svg" && withFonts ? { fonts: "1" } : {}),
      ...(download ? { download: "1" } : {}),
    });
  const copy = async () => {
    try {
      if (!navigator.clipboard || !("ClipboardItem" in window))
        throw new Error("this browser does not allow it");
      await store.getState().flush();
      const picture = fetch(address("png", false)).then(async (r) => {
        if (!r.ok) throw new Error(`the server answered ${r.status}`);
        return r.blob();
      });
      await navigator.clipboard.write([new ClipboardItem({ "image/png": picture })]);
      toast("The picture is copied.");
    } catch (error) {
      toast.error(
        `The picture could not be copied: ${error instanceof Error ? error.message : "not allowed"}.`,
      );
    }
  };
  const sizeField = (key: "width" | "height") => (
    <Labelled label={key === "width" ? "Width" : "Height"}>
      {(field) => (
        <CommitField
          id={field}
          mono
          value={String(now[key])}
          check={(t) => frameProblem(key, t)}
          onCommit={(t) => onChange({ ...look, size: { ...now, [key]: Math.round(Number(t)) } })}
        />
      )}
    </Labelled>
  );
  return (
    <>
      <h2 className="section-title">Picture</h2>
      <ThemeChoice
        value={theme}
        onChange={(t) => onChange({ ...look, theme: t === "night" ? "night" : "light" })}
      />
      {sizeField("width")}
      {sizeField("height")}
      <Labelled label="Pixels">
        {(field) => (
          <Choose
            id={field}
            value={scale}
            options={["1", "2", "3", "4"].map((s) => ({ value: s, label: `${s} to a point (PNG)` }))}
            onChange={(s) => onChange({ ...look, scale: s })}
          />
        )}
      </Labelled>
      <label className="flex min-h-8 items-center gap-2 text-sm">
        <input
          type="checkbox"
          className="size-4 accent-verdigris"
          checked={withFonts}
          onChange={(e) => onChange({ ...look, withFonts: e.target.checked })}
        />
        The SVG carries its fonts
      </label>
      <div className="grid grid-cols-2 gap-2 pt-1">
        <button
          type="button"
          className="button button-strong"
          onClick={() => void take(address("svg", true))}
        >
          <Download size={14} /> Take SVG
        </button>
        <button
          type="button"
          className="button button-strong"
          onClick={() => void take(address("png", true))}
        >
          <Download size={14} /> Take PNG
        </button>
        <button type="button" className="button col-span-2" onClick={() => void copy()}>
          <Copy size={14} /> Copy the picture
        </button>
      </div>
      <h3 className="mt-3 text-sm font-semibold">Its address on this server</h3>
      <p className="text-xs text-muted">
        Filters and inputs follow as <code className="font-mono">filter.COLUMN=</code> and{" "}
        <code className="font-mono">input.NAME=</code>.
      </p>
      <AddressLine label="the SVG" address={address("svg", false)} />
      <AddressLine label="the PNG" address={address("png", false)} />
    </>
  );
}
