"use client";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { FolderOpen, Plus, Ship, Trash2 } from "lucide-react";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useRef } from "react";
import type { ProjectSummary } from "@/server/store/projects";
import { api } from "../shared/api";
import { Mark } from "../shared/mark";
import { toast } from "../shared/notice";

const when = (iso: string) => new Date(iso).toLocaleString(undefined, { dateStyle: "medium", timeStyle: "short" });

/** All projects, and the three ways to begin one. */
export function ProjectsScreen() {
  const router = useRouter();
  const client = useQueryClient();
  const file = useRef<HTMLInputElement>(null);
  const { data, error } = useQuery({ queryKey: ["projects"], queryFn: api.projects, staleTime: 0 });
  const create = useMutation({
    mutationFn: (make: () => Promise<{ project: ProjectSummary }>) => make(),
    onSuccess: ({ project }) => router.push(`/p/${project.id}/data`),
    onError: (problem) => toast.error(problem.message, { duration: 10_000 }),
  });
  const remove = useMutation({
    mutationFn: api.deleteProject,
    onSuccess: () => client.invalidateQueries({ queryKey: ["projects"] }),
    onError: (problem) => toast.error(problem.message),
  });
  return (
    <main className="mx-auto flex h-full max-w-3xl flex-col px-6 py-14">
      <h1 className="flex items-center gap-3 text-2xl font-bold" style={{ fontStretch: "118%" }}>
        <Mark size={34} /> cavlo
      </h1>
      <p className="mt-3 text-md text-muted">KPI visuals computed from shared measures: say what you mean, see the truth, keep it beautiful at any value.</p>
      <div className="mt-7 flex flex-wrap gap-2">
        <button type="button" className="button button-strong" disabled={create.isPending} onClick={() => create.mutate(() => api.createProject({ name: "New project" }))}>
          <Plus size={15} /> New project
        </button>
        <button type="button" className="button" disabled={create.isPending} onClick={() => file.current?.click()}>
          <FolderOpen size={15} /> Open a project file
        </button>
        <button type="button" className="button" disabled={create.isPending} onClick={() => create.mutate(() => api.createProject({ demo: true }))}>
          <Ship size={15} /> Load the demo
        </button>
        <input
          ref={file}
          type="file"
          accept=".json,application/json"
          aria-label="Project file"
          className="sr-only"
          tabIndex={-1}
          onChange={(e) => {
            const chosen = e.target.files?.[0];
            e.target.value = "";
            if (chosen) create.mutate(() => api.openFile(chosen));
          }}
        />
        {create.isPending && (
          <span role="status" className="self-center text-sm text-muted">
            Making the project …
          </span>
        )}
      </div>
      <h2 className="mt-10 text-md">Projects</h2>
      {error && (
        <p role="alert" className="mt-3 text-signal">
          {error.message}
        </p>
      )}
      {data?.projects.length === 0 && <p className="mt-3 text-muted">There is no project yet. Begin with a new one, or load the demo to look around.</p>}
      <ul className="mt-3 min-h-0 flex-1 divide-y divide-rule overflow-auto rounded-md border border-rule bg-sheet empty:hidden">
        {data?.projects.map((project) => (
          <li key={project.id} className="flex items-center gap-3 px-4 py-2.5">
            <Link href={`/p/${project.id}/data`} className="flex-1 truncate font-semibold hover:text-verdigris">
              {project.name}
            </Link>
            <span className="text-sm text-muted">changed {when(project.changedAt)}</span>
            <button
              type="button"
              className="icon-button"
              aria-label={`Delete ${project.name}`}
              onClick={() => {
                // A deleted project cannot be brought back, so this one asks.
                if (window.confirm(`Delete “${project.name}” with its tables? This cannot be undone.`)) remove.mutate(project.id);
              }}
            >
              <Trash2 size={15} />
            </button>
          </li>
        ))}
      </ul>
    </main>
  );
}
