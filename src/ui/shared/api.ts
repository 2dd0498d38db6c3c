import type { Reading } from "@/core/data/reading-schema";
import type { Link } from "@/core/formula/links";
import type { QueryInput } from "@/core/plan/query";
import type { Project, TableInfo } from "@/core/project/schema";
import type { LinkAnswer, QueryAnswer, RowsPage, TableProfile, UnreadCells } from "@/server/compute/protocol";
import type { ImportedTable } from "@/server/import/import-table";
import type { Progress } from "@/server/import/progress";
import type { UnclaimedGroup } from "@/server/keep/reclaim";
import type { VerifyStep } from "@/server/keep/verify";
import type { Draft } from "@/server/results";
import type { SnapshotAbout } from "@/server/snapshots/make-snapshot";
import type { DeletedProject, ProjectSummary, SavedProject } from "@/server/store/projects";

import { serverIsAway, serverIsHere } from "./connection";

/** An answer of the server that is an error, with its own sentence. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly body: unknown,
  ) {
    super(message);
  }
}

async function checked(response: Response): Promise<Response> {
  if (response.ok) return response;
  const body = await response.json().catch(() => null);
  const error = (body as { error?: { code: string; message: string } } | null)?.error;
  throw new ApiError(
    response.status,
    error?.code ?? "unknown",
    error?.message ?? `The server answered ${response.status}.`,
    body,
  );
}

/** Fetches, and says in words when no answer comes. */
async function asked(path: string, init?: RequestInit): Promise<Response> {
  try {
    const response = await fetch(path, init);
    serverIsHere();
    return response;
  } catch (error) {
    if (error instanceof DOMException && error.name === "AbortError") throw error;
    serverIsAway();
    throw new ApiError(
      0,
      "offline",
      "Cavlo's server does not answer. Start it again with ./start where it was stopped.",
      null,
    );
  }
}

async function json<T>(path: string, init?: RequestInit): Promise<T> {
  return (await checked(await asked(path, init))).json() as Promise<T>;
}

const send = (method: string, body: unknown, more: RequestInit = {}): RequestInit => ({
  method,
  headers: { "content-type": "application/json" },
  body: JSON.stringify(body),
  ...more,
});
const at = (projectId: string) => `/api/projects/${encodeURIComponent(projectId)}`;
const tableAt = (projectId: string, name: string) => `${at(projectId)}/tables/${encodeURIComponent(name)}`;

const BROKEN_IMPORT =
  "The connection to Cavlo's server broke before the table was there. Nothing was brought in; see that the server runs, and bring the file in again.";

/** Hears each line of an answer as it comes. */
async function eachLine(response: Response, hear: (line: string) => void): Promise<void> {
  const reader = response.body?.pipeThrough(new TextDecoderStream()).getReader();
  let rest = "";
  for (;;) {
    const { value, done } = (await reader?.read()) ?? { value: undefined, done: true };
    rest += value ?? "";
    const lines = rest.split("\n");
    rest = lines.pop() ?? "";
    for (const line of lines) hear(line);
    if (done) return;
  }
}

/** Reads an answer that comes as lines of JSON: progress, then a table or an error. */
async function readImport(response: Response, progress: Progress): Promise<ImportedTable> {
  let imported: ImportedTable | null = null;
  const whole = await checked(response);
  try {
    await eachLine(whole, (line) => {
      const message = JSON.parse(line) as
        | { progress: number; rows?: number }
        | ImportedTable
        | { error: { code: string; message: string } };
      if ("error" in message) throw new ApiError(422, message.error.code, message.error.message, message);
      if ("table" in message) imported = message;
      else progress(message.progress, message.rows);
    });
  } catch (error) {
    if (error instanceof ApiError || (error instanceof DOMException && error.name === "AbortError"))
      throw error;
    throw new ApiError(0, "broken", BROKEN_IMPORT, null);
  }
  if (imported === null) throw new ApiError(0, "broken", BROKEN_IMPORT, null);
  return imported;
}

/** What a snapshot would hold, and how large it is in its forms. */
export type SnapshotAnswer = SnapshotAbout & {
  bytes: { json: number; html: number };
  /** The files of its folder, and how large each is on its way from a server that packs. */
  folder: { path: string; bytes: number; packed: number }[];
  /** What it is called, and its file in the folder. */
  name: string;
  file: string;
  /** Its tables and inputs, as they travel. */
  project: Pick<Project, "tables" | "inputs">;
};

export const api = {
  projects: () =>
    json<{ projects: ProjectSummary[]; deleted: DeletedProject[]; unclaimed: UnclaimedGroup[] }>(
      "/api/projects",
    ),
  createProject: (order: { name: string } | { demo: true }) =>
    json<{ project: ProjectSummary }>("/api/projects", send("POST", order)),
  openFile: (file: File) =>
    json<{ project: ProjectSummary }>("/api/projects", {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: file,
    }),
  project: (id: string) => json<{ project: SavedProject }>(at(id)),
  save: (id: string, revision: number, document: Project) =>
    json<{ project: ProjectSummary }>(at(id), send("PUT", { revision, document })),
  /** Makes a new project out of a document, with copies of the tables of `from`. */
  copyProject: (from: string, document: Project) =>
    json<{ project: ProjectSummary }>(`${at(from)}/copy`, send("POST", { document })),
  deleteProject: async (id: string) => void (await checked(await asked(at(id), { method: "DELETE" }))),
  undelete: (id: string) => json<{ project: ProjectSummary }>(`${at(id)}/undelete`, { method: "POST" }),
  /** Removes a deleted project for good. */
  purge: async (id: string) => void (await checked(await asked(`${at(id)}/purge`, { method: "POST" }))),
  /** Makes an earlier revision the newest. */
  restore: (id: string, revision: number) =>
    json<{ project: ProjectSummary }>(`${at(id)}/restore`, send("POST", { revision })),
  reclaim: (project: string) =>
    json<{ project: ProjectSummary }>("/api/unclaimed", send("POST", { project, action: "bring back" })),
  removeUnclaimed: async (project: string) =>
    void (await checked(await asked("/api/unclaimed", send("POST", { project, action: "remove" })))),
  backupAddress: "/api/backup",
  /** Looks at everything in the data folder; `step` hears how far it has come and what was found. */
  verify: async (step: (step: VerifyStep) => void) => {
    const response = await checked(await asked("/api/verify", { method: "POST" }));
    let isWhole = false;
    await eachLine(response, (line) => {
      const next = JSON.parse(line) as VerifyStep;
      isWhole = next.done === next.of;
      step(next);
    }).catch(() => {});
    if (!isWhole)
      throw new ApiError(
        0,
        "broken",
        "The check ended before everything was looked at. See that Cavlo's server runs, and check again.",
        null,
      );
  },
  results: (id: string, queries: QueryInput[], draft: Draft, signal?: AbortSignal) =>
    json<{ results: QueryAnswer[] }>(`${at(id)}/results`, send("POST", { queries, draft }, { signal })),
  profile: (id: string, table: string) =>
    json<{ table: TableInfo; profile: TableProfile }>(tableAt(id, table)),
  rows: (id: string, table: string, query: Record<string, string | number>, signal?: AbortSignal) =>
    json<{ page: RowsPage }>(
      `${tableAt(id, table)}/rows?${new URLSearchParams(Object.entries(query).map(([k, v]) => [k, String(v)]))}`,
      { signal },
    ),
  links: (id: string, links: Link[]) =>
    json<{ links: LinkAnswer }>(`${at(id)}/links`, send("POST", { links })),
  unread: (id: string, table: string, column: string, reading: Reading) =>
    json<UnreadCells>(`${tableAt(id, table)}/unread`, send("POST", { column, reading })),
  importTable: async (
    id: string,
    file: File,
    progress: Progress,
    signal: AbortSignal,
    options: Record<string, string> = {},
  ) =>
    readImport(
      await asked(`${at(id)}/tables?${new URLSearchParams({ ...options, name: file.name })}`, {
        method: "POST",
        body: file,
        signal,
        headers: { "content-type": "application/octet-stream" },
      }),
      progress,
    ),
  rereadTable: async (
    id: string,
    table: string,
    options: { encoding?: string; separator?: string; header?: boolean; above?: number; sheet?: string },
    progress: Progress,
    signal: AbortSignal,
  ) => readImport(await asked(`${tableAt(id, table)}/reread`, send("POST", options, { signal })), progress),
  turnColumns: async (
    id: string,
    table: string,
    turn: { columns: string[]; names: string; values: string },
    progress: Progress,
    signal: AbortSignal,
  ) => readImport(await asked(`${tableAt(id, table)}/turn`, send("POST", turn, { signal })), progress),
  appendRows: async (id: string, table: string, file: File, progress: Progress, signal: AbortSignal) =>
    readImport(
      await asked(`${tableAt(id, table)}/append?${new URLSearchParams({ name: file.name })}`, {
        method: "POST",
        body: file,
        signal,
        headers: { "content-type": "application/octet-stream" },
      }),
      progress,
    ),
  tableAddress: (id: string, table: string, format: string) =>
    `${tableAt(id, table)}/export?${new URLSearchParams({ format })}`,
  fileAddress: (id: string) => `${at(id)}/file`,
  snapshotAddress: (id: string, query: Record<string, string>) =>
    `${at(id)}/snapshot?${new URLSearchParams(query)}`,
  /** What would travel with a snapshot. */
  snapshotAbout: (id: string, query: Record<string, string>, signal?: AbortSignal) =>
    json<{ about: SnapshotAnswer }>(
      `${at(id)}/snapshot?${new URLSearchParams({ ...query, form: "about" })}`,
      { signal },
    ),
  /** A visual as a component of React. */
  component: async (id: string, visual: string, signal: AbortSignal) =>
    (await checked(await asked(`${at(id)}/visuals/${encodeURIComponent(visual)}.tsx`, { signal }))).text(),
  visualAddress: (id: string, visual: string, form: string, query: Record<string, string | number>) =>
    `${at(id)}/visuals/${encodeURIComponent(visual)}.${form}?${new URLSearchParams(Object.entries(query).map(([k, v]) => [k, String(v)]))}`,
};
