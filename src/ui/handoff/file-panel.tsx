"use client";
import { Download } from "lucide-react";
import { api, type SnapshotAnswer } from "../shared/api";
import { useProject } from "../shared/project-context";
import { AboutState } from "./element-panel";
import { snapshotQuery, type Travelling } from "./snapshot-about";
import { useTaking } from "./taking";
import { TravelChoice } from "./travel-choice";
import { bytesText, Travels } from "./travels";
import type { What } from "./what";

/** A visual or a board as one HTML file that needs neither a server nor a network. */
export function FilePanel({
  what,
  travelling,
  about,
  problem,
  onChange,
}: {
  what: What;
  travelling: Travelling;
  about: SnapshotAnswer | undefined;
  problem: string | null;
  onChange: (travelling: Travelling) => void;
}) {
  const id = useProject((s) => s.id);
  const take = useTaking();
  return (
    <>
      <h2 className="section-title">File that works alone</h2>
      <p className="text-sm text-muted">
        One HTML file with its script, its fonts and what answers it. It is opened from a disk or sent by
        mail, and stays alive without a network.
      </p>
      <TravelChoice what={what} travelling={travelling} onChange={onChange} />
      <AboutState about={about} problem={problem} />
      {about && (
        <>
          <Travels about={about} isBoard={what.board !== null} size={bytesText(about.bytes.html)} />
          <button
            type="button"
            className="button button-strong justify-center"
            onClick={() =>
              void take(api.snapshotAddress(id, { ...snapshotQuery(what, travelling), form: "html" }))
            }
          >
            <Download size={14} /> Take the file ({bytesText(about.bytes.html)})
          </button>
        </>
      )}
    </>
  );
}
