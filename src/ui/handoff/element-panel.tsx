"use client";
import { Download } from "lucide-react";
import { useState } from "react";
import { ownRowsCode, plainPageCode, reactCode } from "@/code/element-code";
import { api, type SnapshotAnswer } from "../shared/api";
import { useProject } from "../shared/project-context";
import { Segments } from "../shared/segments";
import { CodeView } from "./code-view";
import { snapshotQuery, type Travelling } from "./snapshot-about";
import { useTaking } from "./taking";
import { TravelChoice } from "./travel-choice";
import { bytesText, Travels } from "./travels";
import type { What } from "./what";

const PIECES = [
  { id: "page", name: "Plain page", language: "html", of: plainPageCode },
  { id: "react", name: "React", language: "tsx", of: reactCode },
  { id: "rows", name: "Own rows", language: "html", of: ownRowsCode },
] as const;

interface Props {
  what: What;
  travelling: Travelling;
  about: SnapshotAnswer | undefined;
  problem: string | null;
  onChange: (travelling: Travelling) => void;
}

/** What went wrong, or that it is being looked at. */
export function AboutState({ about, problem }: Pick<Props, "about" | "problem">) {
  if (problem)
    return (
      <p role="alert" className="text-sm text-signal">
        {problem}
      </p>
    );
  return about ? null : (
    <p role="status" className="text-sm text-muted">
      Looking at what would travel …
    </p>
  );
}

/** A visual or a board as an element of somebody's page. */
export function ElementPanel({ what, travelling, about, problem, onChange }: Props) {
  const [piece, setPiece] = useState<(typeof PIECES)[number]["id"]>("page");
  const id = useProject((s) => s.id);
  const take = useTaking();
  const shown = PIECES.find((p) => p.id === piece) ?? PIECES[0];
  const { theme } = travelling;
  const code =
    about &&
    shown.of({
      board: what.board,
      visuals: what.visuals,
      project: about.project,
      file: about.file,
      theme,
      filters: {},
      example: about.example,
    });
  const folder = about?.folder ?? [];
  const packed = (isIt: (path: string) => boolean) =>
    folder.filter((f) => isIt(f.path)).reduce((sum, f) => sum + f.packed, 0);
  const scripts = packed((path) => /^cavlo(-board|-shared)?\.js$/.test(path));
  const later = packed((path) => /^cavlo-(engine|patterns)\.js$/.test(path));
  return (
    <>
      <div className="flex items-center justify-between gap-2">
        <h2 className="section-title">Element</h2>
        <Segments label="For what" value={piece} options={PIECES} onChange={setPiece} />
      </div>
      {code && <CodeView code={code} language={shown.language} label={`the code for ${shown.name}`} />}
      <TravelChoice what={what} travelling={travelling} onChange={onChange} />
      <AboutState about={about} problem={problem} />
      {about && (
        <>
          <Travels
            about={about}
            isBoard={what.board !== null}
            size={`${bytesText(packed((path) => path === about.file))} data, ${bytesText(scripts)} script; ${bytesText(later)} more once something is computed anew (as a server packs them)`}
          />
          <button
            type="button"
            className="button button-strong justify-center"
            onClick={() =>
              void take(api.snapshotAddress(id, { ...snapshotQuery(what, travelling), form: "folder" }))
            }
          >
            <Download size={14} /> Take it out as a folder ({folder.length} files)
          </button>
          <button
            type="button"
            className="button justify-center"
            onClick={() =>
              void take(
                api.snapshotAddress(id, { ...snapshotQuery(what, travelling), form: "json", download: "1" }),
              )
            }
          >
            <Download size={14} /> Take the snapshot alone ({bytesText(about.bytes.json)})
          </button>
        </>
      )}
    </>
  );
}
