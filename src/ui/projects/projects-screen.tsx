"use client";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Copy, FolderOpen, Plus, Ship, Trash2 } from "lucide-react";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useEffect, useRef, useState } from "react";
import { LONGEST } from "@/core/project/most";
import type { ProjectSummary } from "@/server/store/projects";
import { api } from "../shared/api";
import { onProjectEvent } from "../shared/connection";
import { freeLabel } from "../shared/ids";
import { Mark } from "../shared/mark";
import { toast } from "../shared/notice";
import { useTheme } from "../shared/theme";
import { KeptThings } from "./kept-things";

const when = (iso: string) =>
  new Date(iso).toLocaleString(undefined, { dateStyle: "medium", timeStyle: "short" });

/** A project's first board, small; nothing where it has none. */
function BoardPicture({ project }: { project: ProjectSummary }) {
  const theme = useTheme((s) => s.theme);
  const [missing, setMissing] = useState(false);
  return (
    <span className="flex h-[52px] w-[82px] shrink-0 items-start overflow-hidden rounded-sm border border-rule bg-paper">
      {!missing && (
        // biome-ignore lint/performance/noImgElement: made by this server for this list, of any size
        <img
          src={`/api/projects/${project.id}/picture?theme=${theme}&revision=${project.revision}`}
          alt=""
          loading="lazy"
          className="h-auto w-full"
          onError={() => setMissing(true)}
        />
      )}
    </span>
  );
}

/** So many projects are found by looking. */
const FEW = 6;

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
      toast(`${project.name} is removed. It is kept for 30 days.`, {
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
  const duplicate = useMutation({
    mutationFn: async (project: ProjectSummary) => {
      const { project: whole } = await api.project(project.id);
      const name = freeLabel(`${project.name} copy`, names);
      return api.copyProject(project.id, { ...whole.document, name });
    },
    onSuccess: ({ project }) => {
      void again();
      toast(`${project.name} is here.`);
    },
    onError: (problem) => toast.error(problem.message, { duration: 10_000 }),
  });
  const [find, setFind] = useState("");
  const projects = data?.projects ?? [];
  const names = projects.map((p) => p.name);
  const found = projects.filter((p) => p.name.toLowerCase().includes(find.trim().toLowerCase()));
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
          onClick={() => create.mutate(() => api.createProject({ name: freeLabel("New project", names) }))}
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
      <div className="mt-10 flex items-end justify-between gap-4">
        <h2 ref={list} tabIndex={-1} className="text-md">
          Projects
        </h2>
        {projects.length > FEW && (
          <input
            aria-label="Find a project"
            placeholder="Find a project"
            value={find}
            maxLength={LONGEST.name}
            onChange={(e) => setFind(e.target.value)}
            className="field w-56"
          />
        )}
      </div>
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
      {projects.length > 0 && found.length === 0 && (
        <p className="mt-3 text-muted">No project has “{find.trim()}” in its name.</p>
      )}
      <ul className="mt-3 divide-y divide-rule rounded-md border border-rule bg-sheet empty:hidden">
        {found.map((project) => (
          <li key={project.id} className="flex flex-wrap items-center gap-x-3 px-4 py-2.5">
            <BoardPicture project={project} />
            <Link
              href={`/p/${project.id}/data`}
              prefetch={false}
              className="min-w-40 flex-1 truncate py-1 font-semibold hover:text-verdigris"
            >
              {project.name}
            </Link>
            <span className="text-sm text-muted">changed {when(project.changedAt)}</span>
            <button
              type="button"
              className="icon-button"
              aria-label={`Duplicate ${project.name}`}
              title="Duplicate"
              disabled={duplicate.isPending}
              onClick={() => duplicate.mutate(project)}
            >
              <Copy size={15} />
            </button>
            <button
              type="button"
              className="icon-button"
              title="Remove"
              aria-label={`Remove ${project.name}`}
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
