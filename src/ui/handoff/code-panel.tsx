"use client";
import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { readablePart } from "@/code/component/component-code";
import { echartsCode } from "@/code/echarts-code";
import { pageCode } from "@/code/page-code";
import type { Visual } from "@/core/project/schema";
import type { Scene } from "@/core/scene/marks";
import { api } from "../shared/api";
import { useProject, useProjectStore } from "../shared/project-context";
import { Segments } from "../shared/segments";
import { CodeView } from "./code-view";
import { ThemeChoice } from "./theme-choice";
import { bytesText } from "./travels";

const PIECES = [
  { id: "html", name: "HTML", language: "html" },
  { id: "option", name: "Chart option", language: "js" },
  { id: "component", name: "Component", language: "tsx" },
] as const;

/** The forms of code. */
export type CodePiece = (typeof PIECES)[number]["id"];

const SAYS: Record<CodePiece, string> = {
  html: "The picture as it stands: its numbers do not change.",
  option: "An option of Apache ECharts 5.5 or later, as a module; drawn at this size it is the same picture.",
  component:
    "One file of TypeScript that draws the rows it is given; what draws this kind stands at its end, and nothing but React is imported.",
};

/** So much of long code is shown; all of it is copied. */
const SHOWN = 6000;

/** A visual as code to paste. */
export function CodePanel({
  visual,
  scene,
  theme,
  onTheme,
  piece,
  onPiece,
}: {
  visual: Visual;
  /** Null while its numbers are under way. */
  scene: Scene | null;
  theme: "light" | "night";
  onTheme: (theme: "light" | "night") => void;
  piece: CodePiece;
  onPiece: (piece: CodePiece) => void;
}) {
  const shown = PIECES.find((p) => p.id === piece) ?? PIECES[0];
  const id = useProject((s) => s.id);
  const revision = useProject((s) => s.revision);
  const store = useProjectStore();
  const component = useQuery({
    queryKey: ["component", id, visual.id, revision],
    queryFn: async ({ signal }) => {
      await store.getState().flush();
      return api.component(id, visual.id, signal);
    },
    enabled: piece === "component",
  });
  const code = useMemo(
    () => (scene ? (piece === "html" ? pageCode : echartsCode)(scene, visual.name) : undefined),
    [piece, scene, visual.name],
  );
  const all = piece === "component" ? component.data : code;
  const read = all === undefined ? "" : piece === "component" ? readablePart(all) : all;
  return (
    <>
      <div className="flex items-center justify-between gap-2">
        <h2 className="section-title">Code</h2>
        <Segments label="In which form" value={piece} options={PIECES} onChange={onPiece} />
      </div>
      <ThemeChoice value={theme} onChange={(t) => onTheme(t === "night" ? "night" : "light")} />
      {all === undefined ? (
        <p role={component.failureReason ? "alert" : "status"} className="text-sm text-muted">
          {component.failureReason?.message ?? "Writing the code …"}
        </p>
      ) : (
        <>
          <CodeView
            code={all}
            shown={read.length > SHOWN ? `${read.slice(0, SHOWN)}\n…` : read}
            language={shown.language}
            label={`the code as ${shown.name}`}
          />
          <p className="text-xs text-muted">
            {bytesText(new TextEncoder().encode(all).length)}
            {read.length > SHOWN || read !== all ? "; its beginning is shown, all of it is copied" : ""}.{" "}
            {SAYS[piece]}
          </p>
        </>
      )}
    </>
  );
}
