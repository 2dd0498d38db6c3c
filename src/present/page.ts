import type { Filter, QueryInput } from "@/core/plan/query";
import { touchedBy } from "@/core/view/board-state";
import { toQuery } from "@/core/view/query";
import { startPainter } from "@/render/painter/painter";
import { type Answer, Answers } from "./answers";
import { leaves } from "./elements";
import type { Given } from "./given";
import { PresentedBoard } from "./present";

const given = JSON.parse(document.getElementById("given")?.textContent ?? "null") as Given;
const root = document.getElementById("board");
const { project } = given;
const board = project.boards.find((b) => b.id === given.board);
const { tables, links, measures, inputs, conventions } = project;
const draft = { tables, links, measures, inputs, conventions };

/** The server answered that it will not: asking again would give the same. */
class Refused extends Error {}

async function post(address: string, body: unknown, signal?: AbortSignal): Promise<unknown> {
  const response = await fetch(address, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify(body),
    ...(signal ? { signal } : {}),
  });
  const answer: unknown = await response.json();
  if (response.ok) return answer;
  const message = (answer as { error?: { message?: string } }).error?.message ?? `Status ${response.status}`;
  throw response.status < 500 ? new Refused(message) : new Error(message);
}

async function ask(queries: QueryInput[], signal: AbortSignal): Promise<Answer[]> {
  try {
    const { results } = (await post(given.results, { queries, draft }, signal)) as {
      results: (Exclude<Answer, { error: string }> | { error: { message: string } })[];
    };
    return results.map((r) => ("error" in r ? { error: r.error.message } : r));
  } catch (error) {
    if (!(error instanceof Refused)) throw error;
    return queries.map(() => ({ error: error.message }));
  }
}

/** Says what may be asked here, once nothing else is to be done. */
function prepare(): void {
  if (!board) return;
  const visuals = board.tiles.flatMap((t) =>
    t.type === "visual" ? project.visuals.filter((v) => v.id === t.visual) : [],
  );
  const queries = visuals.flatMap((v) => toQuery(v, project, [], {}) ?? []);
  const touched = touchedBy(board.controls);
  const now: Filter[] = [];
  if (queries.length === 0 || touched.length === 0) return;
  // Without it every answer is a scan, as it would be anyway.
  post(given.cells, { board: board.id, queries, touched, now, draft }).catch(() => {});
}

if (root && board) {
  const { dataset } = document.documentElement;
  const isNight = dataset.theme === "night" || localStorage.getItem(given.theme) === "night";
  const theme = isNight ? "night" : "light";
  dataset.theme = theme;
  const close = () => location.assign(given.close);
  new PresentedBoard(
    root,
    { project, board },
    {
      answers: new Answers(ask, given.answers),
      start: startPainter,
      theme,
      wantsMotion: () => !matchMedia("(prefers-reduced-motion: reduce)").matches,
      onClose: close,
    },
  );
  addEventListener("keydown", (event) => {
    if (leaves(event)) close();
  });
  setTimeout(prepare, 800);
}
