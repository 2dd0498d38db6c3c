"use client";
import { useQuery } from "@tanstack/react-query";
import Link from "next/link";
import { useSearchParams } from "next/navigation";
import type { ReactNode } from "react";
import { api } from "./api";
import { BehindNotice } from "./behind-notice";
import { Header } from "./header";
import { ProblemBoundary } from "./problem-boundary";
import { ProjectProvider } from "./project-context";

/** Loads a project and puts the frame of the five steps around its screens; a board in present mode has no frame. */
export function ProjectFrame({ id, children }: { id: string; children: ReactNode }) {
  const { data, error } = useQuery({ queryKey: ["project", id], queryFn: () => api.project(id), staleTime: 0, gcTime: 0 });
  const presents = useSearchParams().get("present") === "1";
  if (error) {
    return (
      <main className="grid h-full place-items-center">
        <div className="max-w-md text-center">
          <h1 className="text-lg">This project cannot be opened</h1>
          <p className="mt-2 text-muted">{error.message}</p>
          <Link href="/" className="button mt-4">
            All projects
          </Link>
        </div>
      </main>
    );
  }
  if (!data) return <main className="grid h-full place-items-center text-muted">Opening the project …</main>;
  return (
    <ProjectProvider saved={data.project}>
      <div className="flex h-full flex-col">
        {!presents && <Header />}
        {!presents && <BehindNotice />}
        <main className="min-h-0 flex-1">
          <ProblemBoundary>{children}</ProblemBoundary>
        </main>
      </div>
    </ProjectProvider>
  );
}
