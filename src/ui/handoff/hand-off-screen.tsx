"use client";
import { Download, FileJson } from "lucide-react";
import { useState } from "react";
import { formatNumber } from "@/core/base/number-format";
import { kindOf } from "@/core/kinds";
import { frameProblem } from "@/core/project/frame-limits";
import { sceneOf } from "@/core/view/picture";
import { api } from "../shared/api";
import { Busy } from "../shared/busy";
import { Choose } from "../shared/choose";
import { CommitField } from "../shared/commit-field";
import { useDesign } from "../shared/design";
import { ItemList } from "../shared/item-list";
import { Labelled } from "../shared/labelled";
import { useProject, useProjectStore } from "../shared/project-context";
import { useSelected } from "../shared/selected";
import { StaticPicture } from "../shared/static-picture";
import { type ThemeName, useTheme } from "../shared/theme";
import { useVisualsData } from "../shared/visual-data";
import { VisualThumbnail } from "../shared/visual-thumbnail";

/** The fifth step: what can be taken away, and how it will look there. */
export function HandOffScreen() {
  const visuals = useProject((s) => s.document.visuals);
  const projectId = useProject((s) => s.id);
  const store = useProjectStore();
  const design = useDesign();
  const [visual, choose] = useSelected("visual", visuals);
  const [theme, setTheme] = useState<ThemeName>("light");
  const [scale, setScale] = useState("2");
  const [withFonts, setWithFonts] = useState(false);
  const [size, setSize] = useState<{ width: number; height: number } | null>(null);
  const appTheme = useTheme((s) => s.theme);
  const all = useVisualsData(visuals);
  const pictured = all[visual ? visuals.indexOf(visual) : -1];
  const data = pictured?.data;
  const now = size ?? visual?.size ?? { width: 400, height: 330 };
  const scene = visual && data ? sceneOf(visual, data, design, { theme, size: now }) : null;
  const take = async (address: string) => {
    // The file is made from what is saved, so what is not saved yet goes first.
    await store.getState().flush();
    const link = document.createElement("a");
    link.href = address;
    link.download = "";
    link.click();
  };
  const address = (form: string) =>
    api.visualAddress(projectId, visual?.id ?? "", form, {
      ...now,
      theme,
      download: "1",
      ...(form === "png" ? { scale } : {}),
      ...(form === "svg" && withFonts ? { fonts: "1" } : {}),
    });
  const sizeField = (key: "width" | "height") => (
    <Labelled label={key === "width" ? "Width" : "Height"}>
      {(id) => (
        <CommitField
          id={id}
          mono
          value={String(now[key])}
          check={(t) => frameProblem(key, t)}
          onCommit={(t) => setSize({ ...now, [key]: Math.round(Number(t)) })}
        />
      )}
    </Labelled>
  );
  return (
    <div className="areas grid h-full grid-cols-[220px_minmax(0,1fr)_300px] max-lg:grid-cols-[168px_minmax(0,1fr)_260px]">
      <ItemList label="Visuals" className="areas-list min-h-0 overflow-auto border-r border-rule py-3">
        <h2 className="px-4 pb-1 text-xs text-muted">Visuals</h2>
        {visuals.map((v, i) => (
          <button
            key={v.id}
            type="button"
            data-item
            title={v.name}
            aria-current={v.id === visual?.id}
            onClick={() => {
              choose(v.id);
              setSize(null);
            }}
            className={`flex w-full items-center gap-2 border-l-[3px] px-3 py-1.5 text-left ${v.id === visual?.id ? "border-verdigris bg-tint" : "border-transparent hover:bg-well"}`}
          >
            <span className="w-14 shrink-0 rounded-sm bg-sheet">
              <VisualThumbnail visual={v} data={all[i].data} theme={appTheme} />
            </span>
            <span className="min-w-0">
              <span className="block truncate font-semibold">{v.name}</span>
              <span className="block truncate text-xs text-muted">{kindOf(v.kind).label}</span>
            </span>
          </button>
        ))}
        {visuals.length === 0 && <p className="px-4 text-sm text-muted">There is no visual yet.</p>}
      </ItemList>
      <section
        aria-label="Preview"
        className={`grid min-h-0 place-items-center overflow-auto p-6 ${theme === "night" ? "bg-[#101819]" : "stage-grid"}`}
      >
        {scene && visual && (
          <div style={{ width: now.width, maxWidth: "100%" }}>
            <Busy pending={pictured.pending}>
              <StaticPicture scene={scene} label={scene.description} className="h-auto w-full" />
            </Busy>
          </div>
        )}
      </section>
      <aside className="areas-side flex min-h-0 flex-col gap-2 overflow-auto border-l border-rule bg-panel p-4">
        {visual && data && (
          <>
            <h2 className="section-title">The picture</h2>
            <Labelled label="Theme">
              {(id) => (
                <Choose
                  id={id}
                  value={theme}
                  options={[
                    { value: "light", label: "light" },
                    { value: "night", label: "night" },
                  ]}
                  onChange={(t) => setTheme(t as ThemeName)}
                />
              )}
            </Labelled>
            {sizeField("width")}
            {sizeField("height")}
            <Labelled label="Pixels">
              {(id) => (
                <Choose
                  id={id}
                  value={scale}
                  options={["1", "2", "3", "4"].map((s) => ({ value: s, label: `${s} to a point (PNG)` }))}
                  onChange={setScale}
                />
              )}
            </Labelled>
            <label className="flex min-h-8 items-center gap-2 text-sm">
              <input
                type="checkbox"
                className="size-4 accent-verdigris"
                checked={withFonts}
                onChange={(e) => setWithFonts(e.target.checked)}
              />
              The SVG carries its fonts
            </label>
            <div className="grid grid-cols-2 gap-2 pt-1">
              <button
                type="button"
                className="button button-strong"
                onClick={() => void take(address("svg"))}
              >
                <Download size={14} /> Take SVG
              </button>
              <button
                type="button"
                className="button button-strong"
                onClick={() => void take(address("png"))}
              >
                <Download size={14} /> Take PNG
              </button>
            </div>
            <h2 className="section-title mt-4">Its numbers</h2>
            <p className="text-sm text-muted">
              {data.rows.length} {data.rows.length === 1 ? "row" : "rows"}, {data.valueLabel.toLowerCase()}{" "}
              {formatNumber(data.total, data.format)} in all.
            </p>
            <div className="grid grid-cols-2 gap-2">
              <button type="button" className="button" onClick={() => void take(address("csv"))}>
                <Download size={14} /> Take CSV
              </button>
              <button type="button" className="button" onClick={() => void take(address("xlsx"))}>
                <Download size={14} /> Take XLSX
              </button>
              <button type="button" className="button" onClick={() => void take(address("json"))}>
                <Download size={14} /> Take JSON
              </button>
              <button type="button" className="button" onClick={() => void take(address("ndjson"))}>
                <Download size={14} /> Take NDJSON
              </button>
            </div>
          </>
        )}
        <h2 className="section-title mt-4">The project</h2>
        <p className="text-sm text-muted">
          Everything in one file: tables with their rows, measures, inputs, visuals and boards. Open it on the
          page of all projects.
        </p>
        <button
          type="button"
          className="button self-start"
          onClick={() => void take(api.fileAddress(projectId))}
        >
          <FileJson size={14} /> Take the project file
        </button>
      </aside>
    </div>
  );
}
