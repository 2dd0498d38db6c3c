import type { QueryInput } from "@/core/plan/query";
import type { Project } from "@/core/project/schema";
import { type BoardState, UNTOUCHED } from "@/core/view/board-state";
import { stateFrom } from "@/core/view/state-address";
import { walkFrom, writeWalk } from "@/core/view/walk";
import { startPainter } from "@/render/painter/painter";
import { type Answer, Answers } from "./answers";
import type { Presented } from "./board-controls";
import { cellsOfServer } from "./cells-source";
import { watchForEastAsian } from "./east-asian";
import { leaves } from "./elements";
import type { Given } from "./given";
import { leaveHistory, wholeState, withState, writeHistory } from "./history";
import { Preparation } from "./preparing";
import { PresentedBoard, type PresentOptions } from "./present";
import { rowsOfServer } from "./rows-source";
import type { Walking } from "./walking";

const given = JSON.parse(document.getElementById("given")?.textContent ?? "null") as Given;
const root = document.getElementById("board");
const calm = matchMedia("(prefers-reduced-motion: reduce)");

/** The parts of a document that answers depend on. */
const draftOf = ({ tables, links, measures, inputs, conventions }: Project) => ({
  tables,
  links,
  measures,
  inputs,
  conventions,
});
/** A board with its document as it was last saved; null where there is none any more. */
function presentedIn(project: Project, id: string): Presented | null {
  const board = project.boards.find((b) => b.id === id);
  return board ? { project, board } : null;
}

/** The project as it is saved now; null where it cannot be had. */
async function readProject(): Promise<Project | null> {
  const response = await fetch(given.server);
  return response.ok
    ? ((await response.json()) as { project: { document: Project } }).project.document
    : null;
}

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

async function ask(
  draft: ReturnType<typeof draftOf>,
  queries: QueryInput[],
  signal: AbortSignal,
): Promise<Answer[]> {
  try {
    const { results } = (await post(`${given.server}/results`, { queries, draft }, signal)) as {
      results: (Exclude<Answer, { error: string }> | { error: { message: string } })[];
    };
    return results.map((r) => ("error" in r ? { error: r.error.message } : r));
  } catch (error) {
    if (!(error instanceof Refused)) throw error;
    return queries.map(() => ({ error: error.message }));
  }
}

/**
 * Hears of every change of the project that somebody saves, of what was missed while the server was away, and
 * that it is gone.
 */
function follow(changed: (project: Project) => void, gone: () => void): void {
  const read = async () => {
    const project = await readProject();
    if (project) changed(project);
  };
  const events = new EventSource(given.events);
  let wasAway = false;
  events.addEventListener("error", () => (wasAway = true));
  events.addEventListener("open", () => {
    if (wasAway) read().catch(() => {});
    wasAway = false;
  });
  events.addEventListener("message", ({ data }) => {
    const { project, type } = JSON.parse(String(data)) as { project: string; type: string };
    if (project !== given.id) return;
    if (type === "deleted") gone();
    else read().catch(() => {});
  });
}

/** The theme that the address says, else that of this browser. */
function themeNow(): "light" | "night" {
  const asked = new URLSearchParams(location.search).get("theme");
  return (asked ?? localStorage.getItem(given.theme)) === "night" ? "night" : "light";
}

function start(host: HTMLElement, first: Presented): void {
  let presented = first;
  const theme = themeNow();
  document.documentElement.dataset.theme = theme;
  const stateNow = () => stateFrom(new URLSearchParams(location.search), presented.board, presented.project);
  const begun = stateNow();
  let shown = begun.state;
  const addressOf = (state: BoardState, search = location.search) => withState(search, state, presented);
  const close = () => {
    const { pathname } = new URL(given.close, location.href);
    const board = new URLSearchParams({ board: presented.board.id });
    location.assign(`${pathname}?${board}${addressOf(shown, "").replace("?", "&")}`);
  };
  const walking = (): Walking => {
    const { boards } = given;
    return {
      boards,
      walk: walkFrom(new URLSearchParams(location.search), boards),
      onWalk: (walk) => {
        const address = new URLSearchParams(location.search);
        writeWalk(address, walk);
        history.replaceState(null, "", `${location.pathname}?${address}`);
        view.update(presented, optionsFor(view.answers));
      },
      onGo: (id) => {
        walkTo(id).catch(() => {});
      },
    };
  };
  /** Goes on to another board, as it begins. */
  const walkTo = async (id: string) => {
    const project = await readProject();
    const next = project && presentedIn(project, id);
    if (!next) return;
    const address = new URLSearchParams();
    writeWalk(address, walking().walk);
    const asked = new URLSearchParams(location.search).get("theme");
    if (asked) address.set("theme", asked);
    leaveHistory();
    presented = next;
    shown = UNTOUCHED;
    const path = location.pathname.replace(/[^/]+$/, encodeURIComponent(id));
    history.replaceState(null, "", `${path}?${address}`);
    document.title = `${next.board.name} · ${project.name}`;
    view.update(next, { ...optionsFor(answersWith([])), state: UNTOUCHED, left: [] });
  };
  const answersWith = (known: Given["answers"]) => {
    const draft = draftOf(presented.project);
    return new Answers((queries, signal) => ask(draft, queries, signal), known);
  };
  let preparation: Preparation | null = null;
  const optionsFor = (answers: Answers): PresentOptions => {
    const draft = draftOf(presented.project);
    preparation?.stop();
    preparation = new Preparation(presented, cellsOfServer(given.server, draft), answers);
    return {
      answers,
      start: startPainter,
      theme,
      wantsMotion: () => !calm.matches,
      left: begun.left,
      onState: (state, action, live) => {
        shown = state;
        preparation?.acted(action);
        writeHistory(() => location.pathname + addressOf(state), action, live);
      },
      onSettled: preparation.settled,
      onRows: (asked, of) => {
        const rows = rowsOfServer(given.server, draft);
        return import("./rows-sheet").then((m) => m.openRowsSheet(asked, of, rows));
      },
      link: (state) => {
        const search = wholeState(location.search, state, presented);
        return search === null ? null : location.origin + location.pathname + search;
      },
      walking: walking(),
      onClose: close,
    };
  };
  const view = new PresentedBoard(host, presented, {
    ...optionsFor(answersWith(given.answers)),
    state: begun.state,
  });
  follow(
    (project) => {
      const next = presentedIn(project, presented.board.id);
      if (!next) return;
      presented = next;
      view.update(next, optionsFor(answersWith([])));
    },
    // The server says so of what is asked next.
    () => view.answers.answerInPage(null),
  );
  addEventListener("popstate", () => {
    leaveHistory();
    shown = stateNow().state;
    view.become(shown);
  });
  addEventListener("keydown", (event) => {
    if (leaves(event)) close();
  });
}

const first = presentedIn(given.project, given.board);
if (root && first) start(root, first);
watchForEastAsian();
