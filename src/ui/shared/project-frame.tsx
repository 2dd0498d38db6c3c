"use client";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import Link from "next/link";
import { useSearchParams } from "next/navigation";
import { useEffect, useState } from "react";
import type { SavedProject } from "@/server/store/projects";
import { ApiError, api } from "./api";
import { Areas } from "./areas";
import { CategoriesShown } from "./categories-shown";
import { Header } from "./header";
import { PageTitle } from "./page-title";
import { ProblemBoundary } from "./problem-boundary";
import { ProjectProvider } from "./project-context";
import { ProjectScreens } from "./project-screens";
import { SaveNotices } from "./save-notices";
import { TakeFiles } from "./take-files";

/**
 * Says why a project does not open, and offers what can be done: bringing it back, or opening the newest
 * revision that is sound.
 */
function CannotOpen({ id, error }: { id: string; error: Error }) {
  const client = useQueryClient();
  const [problem, setProblem] = useState("");
  const body =
    error instanceof ApiError ? (error.body as { sound?: { revision: number } | null } | null) : null;
  const again = (work: Promise<unknown>) =>
    work.then(
      () => client.invalidateQueries({ queryKey: ["project", id] }),
      (failed) => setProblem(failed instanceof Error ? failed.message : String(failed)),
    );
  return (
    <main className="grid h-full place-items-center p-6">
      <div role="alert" className="max-w-md text-center">
        <h1 className="text-lg">This project cannot be opened</h1>
        <p className="mt-2 text-muted">{error.message}</p>
        {problem && <p className="mt-2 text-signal">{problem}</p>}
        <div className="mt-4 flex flex-wrap justify-center gap-2">
          {body?.sound && (
            <button
              type="button"
              className="button button-strong"
              onClick={() => void again(api.restore(id, body.sound?.revision ?? 0))}
            >
              Open revision {body.sound.revision}
            </button>
          )}
          {error instanceof ApiError && error.code === "deleted_project" && (
            <button
              type="button"
              className="button button-strong"
              onClick={() => void again(api.undelete(id))}
            >
              Bring it back
            </button>
          )}
          <Link href="/" className="button">
            All projects
          </Link>
        </div>
      </div>
    </main>
  );
}

/** The id of what is worked on, below the header. */
const WORK = "work";

/** The first stop of the Tab key: past the header. The address stays, since it says what is worked on. */
const SkipLink = () => (
  <a
    href={`#${WORK}`}
    className="button button-strong sr-only focus:not-sr-only focus:absolute focus:top-2 focus:left-2 focus:z-50"
    onClick={(event) => {
      event.preventDefault();
      document.getElementById(WORK)?.focus();
    }}
  >
    Skip to the work
  </a>
);

/**
 * Takes the project that the page arrived with, or loads it, and puts the frame of the five steps around its
 * screens; a board in present mode has no frame.
 */
export function ProjectFrame({ id, arrived }: { id: string; arrived: SavedProject | null }) {
  const { data, error, failureReason } = useQuery({
    queryKey: ["project", id],
    queryFn: () => api.project(id),
    initialData: arrived ? { project: arrived } : undefined,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 0,
  });
  const presents = useSearchParams().get("present") === "1";
  // What is seen can be used: nothing of the frame is shown before its script runs, or what is typed into it
  // would be lost.
  const [stands, setStands] = useState(false);
  useEffect(() => setStands(true), []);
  if (error) return <CannotOpen id={id} error={error} />;
  if (!data || !stands)
    return (
      <main className="grid h-full place-items-center p-6 text-center text-muted">
        <p role="status">
          {failureReason ? `${failureReason.message} Trying again …` : "Opening the project …"}
        </p>
      </main>
    );
  return (
    <ProjectProvider key={id} saved={data.project}>
      <PageTitle />
      <Areas />
      <div className="flex h-full flex-col">
        {!presents && <SkipLink />}
        {!presents && <Header />}
        {!presents && <SaveNotices />}
        <main id={WORK} tabIndex={-1} className="min-h-0 flex-1 outline-none">
          <ProblemBoundary>
            <ProjectScreens presents={presents} />
            {!presents && <CategoriesShown />}
            {!presents && <TakeFiles />}
          </ProblemBoundary>
        </main>
      </div>
    </ProjectProvider>
  );
}
