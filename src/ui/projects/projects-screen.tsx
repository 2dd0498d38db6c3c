"use client";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { FolderOpen, Plus, Ship, Trash2 } from "lucide-react";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useEffect, useRef } from "react";
import type { ProjectSummary } from "@/server/store/projects";
import { api } from "../shared/api";
import { onProjectEvent } from "../shared/connection";
import { Mark } from "../shared/mark";
import { toast } from "../shared/notice";
import { KeptThings } from "./kept-things";

const when = (iso: string) =>
  new Date(iso).toLocaleString(undefined, { dateStyle: "medium", timeStyle: "short" });

/** All projects, the three ways to begin one, and what can be brought back. */
export function ProjectsScreen() {
  const router = useRouter();
  const client = useQueryClient();
  const file = useRef<HTMLInputElement>(null);
  const list = useRef<HTMLHeadingElement>(null);
  const { data, error, failureReason } = useQuery({
    queryKey: ["projects"],
    queryFn: api.projects,
    staleTime: 0,
  });
  const again = () => client.invalidateQueries({ queryKey: ["projects"] });
  useEffect(() => onProjectEvent(() => void client.invalidateQueries({ queryKey: ["projects"] })), [client]);
  const create = useMutation({
    mutationFn: (make: () => Promise<{ project: ProjectSummary }>) => make(),
    onSuccess: ({ project }) => router.push(`/p/${project.id}/data`),
    onError: (problem) => toast.error(problem.message, { duration: 10_000 }),
  });
  const remove = useMutation({
    mutationFn: (project: ProjectSummary) => api.deleteProject(project.id),
    onSuccess: (_, project) => {
      void again();
      list.current?.focus();
      toast(`${project.name} is deleted. It is kept for 30 days.`, {
        duration: 12_000,
        action: {
          label: "Undo",
          onClick: () =>
            void api.undelete(project.id).then(again, (problem: Error) => toast.error(problem.message)),
        },
      });
    },
    onError: (problem) => toast.error(problem.message),
  });
  const away = error ?? failureReason;
  return (
    <main className="mx-auto flex min-h-full max-w-3xl flex-col px-6 py-14 max-sm:px-4 max-sm:py-8">
      <h1 className="flex items-center gap-3 text-2xl font-bold" style={{ fontStretch: "118%" }}>
        <Mark size={34} /> cavlo
      </h1>
      <p className="mt-3 text-md text-muted">
        KPI visuals computed from shared measures: say what you mean, see the truth, keep it beautiful at any
        value.
      </p>
      <div className="mt-7 flex flex-wrap gap-2">
        <button
          type="button"
          className="button button-strong"
          disabled={create.isPending}
          onClick={() => create.mutate(() => api.createProject({ name: "New project" }))}
        >
          <Plus size={15} /> New project
        </button>
        <button
          type="button"
          className="button"
          disabled={create.isPending}
          onClick={() => file.current?.click()}
        >
          <FolderOpen size={15} /> Open a project file
        </button>
        <button
          type="button"
          className="button"
          disabled={create.isPending}
          onClick={() => create.mutate(() => api.createProject({ demo: true }))}
        >
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
      <h2 ref={list} tabIndex={-1} className="mt-10 text-md">
        Projects
      </h2>
      {away && (
        <p role="alert" className="mt-3 text-signal">
          {away.message}
          {!error && " Trying again …"}
        </p>
      )}
      {data?.projects.length === 0 && (
        <p className="mt-3 text-muted">
          There is no project yet. Begin with a new one, or load the demo to look around.
        </p>
      )}
      <ul className="mt-3 divide-y divide-rule rounded-md border border-rule bg-sheet empty:hidden">
        {data?.projects.map((project) => (
          <li key={project.id} className="flex flex-wrap items-center gap-x-3 px-4 py-2.5">
            <Link
              href={`/p/${project.id}/data`}
              prefetch={false}
              className="min-w-40 flex-1 truncate font-semibold hover:text-verdigris"
            >
              {project.name}
            </Link>
            <span className="text-sm text-muted">changed {when(project.changedAt)}</span>
            <button
              type="button"
              className="icon-button"
              aria-label={`Delete ${project.name}`}
              disabled={remove.isPending}
              onClick={() => remove.mutate(project)}
            >
              <Trash2 size={15} />
            </button>
          </li>
        ))}
      </ul>
      {data && <KeptThings deleted={data.deleted} unclaimed={data.unclaimed} onChange={() => void again()} />}
    </main>
  );
}
