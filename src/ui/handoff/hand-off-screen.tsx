"use client";
import { useEffect, useState } from "react";
import { echartsCode } from "@/code/echarts-code";
import type { Touched } from "@/core/engine/cells/plan-cells";
import type { Project, Visual } from "@/core/project/schema";
import { sceneOf } from "@/core/view/picture";
import { Busy } from "../shared/busy";
import { useDesign } from "../shared/design";
import { later } from "../shared/fetched-later";
import { useProject } from "../shared/project-context";
import { StaticPicture } from "../shared/static-picture";
import { useVisualsData } from "../shared/visual-data";
import type { CodePiece } from "./code-panel";
import { FormChoice } from "./form-choice";
import { NumbersPanel } from "./numbers-panel";
import { OptionPreview } from "./option-preview";
import { type PictureLook, PicturePanel } from "./picture-panel";
import { ProjectPanel } from "./project-panel";
import { type Travelling, useAbout } from "./snapshot-about";
import { useWhat } from "./what";
import { WhatList } from "./what-list";

// A picture or numbers are taken out at first; all else is fetched when it is chosen, or a while later.
const fetchCode = () => import("./code-panel");
const fetchElement = () => import("./element-panel");
const fetchFile = () => import("./file-panel");
const fetchPage = () => import("./page-preview");
const CodePanel = later(() => fetchCode().then((m) => m.CodePanel));
const ElementPanel = later(() => fetchElement().then((m) => m.ElementPanel));
const FilePanel = later(() => fetchFile().then((m) => m.FilePanel));
const PagePreview = later(() => fetchPage().then((m) => m.PagePreview));
const FETCH_AFTER = 2000;

/** The columns by which the boards that show some visuals filter them: by those a page may want to filter too. */
function filteredBy({ boards }: Project, visuals: Visual[]): Touched[] {
  const showing = boards.filter((b) =>
    b.tiles.some((t) => t.type === "visual" && visuals.some((v) => v.id === t.visual)),
  );
  const all = showing.flatMap((b) =>
    b.controls.flatMap((c): Touched[] =>
      c.type === "filter" ? [{ column: `${c.table}.${c.column}`, ...(c.by ? { by: c.by } : {}) }] : [],
    ),
  );
  return all.filter((t, i) => all.findIndex((u) => u.column === t.column && u.by === t.by) === i);
}

/** The fifth step: what is taken out, as what, and how it will stand where it goes. */
export function HandOffScreen() {
  const project = useProject((s) => s.document);
  const { visuals } = project;
  const design = useDesign();
  const all = useVisualsData(visuals);
  const { what, form, choose, as } = useWhat();
  const [looks, setLooks] = useState<{ of: string; look: PictureLook } | null>(null);
  const [chosen, setChosen] = useState<{ of: string; travelling: Travelling } | null>(null);
  const [piece, setPiece] = useState<CodePiece>("html");
  useEffect(() => {
    const timer = setTimeout(() => {
      for (const fetch of [fetchCode, fetchElement, fetchFile, fetchPage]) fetch().catch(() => {});
    }, FETCH_AFTER);
    return () => clearTimeout(timer);
  }, []);
  const [visual] = what.visuals;
  const pictured = visual ? all[visuals.indexOf(visual)] : undefined;
  const key = what.board ? what.board.id : what.visuals.map((v) => v.id).join();
  const look: PictureLook =
    looks?.of === visual?.id && looks
      ? looks.look
      : {
          theme: looks?.look.theme ?? "light",
          scale: looks?.look.scale ?? "2",
          withFonts: looks?.look.withFonts ?? false,
          size: null,
        };
  const travelling: Travelling =
    chosen?.of === key
      ? chosen.travelling
      : {
          travel: chosen?.travelling.travel ?? "answers",
          theme: chosen?.travelling.theme ?? "light",
          by: what.board ? [] : filteredBy(project, what.visuals),
        };
  const travel = (next: Travelling) => setChosen({ of: key, travelling: next });
  const isAlive = form === "element" || form === "file";
  const scene =
    visual && pictured && !isAlive && form !== "project"
      ? sceneOf(visual, pictured.data, design, {
          theme: look.theme,
          size: form === "picture" ? (look.size ?? visual.size) : visual.size,
        })
      : null;
  return (
    <div className="areas grid h-full grid-cols-[240px_minmax(0,1fr)_380px] max-lg:grid-cols-[168px_minmax(0,1fr)_300px]">
      <WhatList what={what} all={all} choose={choose} />
      <section aria-label="Preview" className="flex min-h-0 flex-col gap-4 overflow-auto p-5">
        <h1 className="sr-only">Hand-off</h1>
        <FormChoice what={what} form={form} onChange={as} />
        {isAlive && (what.board || visual) ? (
          <AlivePreview what={what} travelling={travelling} />
        ) : scene && visual && pictured ? (
          <div
            className={`grid min-h-[300px] flex-1 grid-cols-[minmax(0,1fr)] place-items-center overflow-auto rounded-md p-6 narrow:p-3 ${look.theme === "night" ? "bg-[#101819]" : "stage-grid"}`}
          >
            <div style={{ width: scene.width, maxWidth: "100%" }}>
              <Busy pending={pictured.pending}>
                {form === "code" && piece === "option" && !pictured.pending ? (
                  <OptionPreview
                    code={echartsCode(scene, visual.name)}
                    size={scene}
                    label={scene.description}
                  />
                ) : (
                  <StaticPicture scene={scene} label={scene.description} className="h-auto w-full" />
                )}
              </Busy>
            </div>
          </div>
        ) : (
          <p className="grid flex-1 place-items-center p-6 text-center text-muted">
            {form === "project"
              ? "The file holds the whole project."
              : "Make a visual first: there is nothing to take out yet."}
          </p>
        )}
      </section>
      <aside
        aria-label="How it is taken out"
        className="areas-side flex min-h-0 flex-col gap-2 overflow-auto *:shrink-0 border-l border-rule bg-panel p-4"
      >
        {isAlive && (what.board || visual) && (
          <AlivePanel form={form} what={what} travelling={travelling} onChange={travel} />
        )}
        {form === "picture" && visual && (
          <PicturePanel
            visual={visual}
            look={look}
            onChange={(next) => setLooks({ of: visual.id, look: next })}
          />
        )}
        {form === "code" && visual && scene && (
          <CodePanel
            visual={visual}
            scene={pictured?.pending ? null : scene}
            theme={look.theme}
            piece={piece}
            onPiece={setPiece}
            onTheme={(theme) => setLooks({ of: visual.id, look: { ...look, theme } })}
          />
        )}
        {form === "numbers" && visual && pictured && <NumbersPanel visual={visual} data={pictured.data} />}
        {form === "project" && <ProjectPanel />}
      </aside>
    </div>
  );
}

type Alive = { what: ReturnType<typeof useWhat>["what"]; travelling: Travelling };

function AlivePreview({ what, travelling }: Alive) {
  const { data, dataUpdatedAt } = useAbout(what, travelling);
  // What is looked at is what is saved: until that is known there is nothing to look at.
  if (!data) return <div className="min-h-[300px] flex-1 rounded-md border border-rule" />;
  return <PagePreview what={what} travelling={travelling} stamp={dataUpdatedAt} />;
}

function AlivePanel({
  form,
  ...alive
}: Alive & { form: "element" | "file"; onChange: (travelling: Travelling) => void }) {
  const { data, failureReason, isPlaceholderData } = useAbout(alive.what, alive.travelling);
  // What was found of another choice says nothing of this one.
  const shown = {
    ...alive,
    about: isPlaceholderData ? undefined : data,
    problem: failureReason?.message ?? null,
  };
  return form === "element" ? <ElementPanel {...shown} /> : <FilePanel {...shown} />;
}
