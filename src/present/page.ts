import type { QueryInput } from "@/core/plan/query";
import type { BoardState } from "@/core/view/board-state";
import { stateFrom } from "@/core/view/state-address";
import { startPainter } from "@/render/painter/painter";
import { type Answer, Answers } from "./answers";
import { leaves } from "./elements";
import type { Given } from "./given";
import { withState, writeHistory } from "./history";
import { Preparation } from "./preparing";
import { PresentedBoard } from "./present";
import { rowsOfServer } from "./rows-source";

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
    const { results } = (await post(`${given.server}/results`, { queries, draft }, signal)) as {
      results: (Exclude<Answer, { error: string }> | { error: { message: string } })[];
    };
    return results.map((r) => ("error" in r ? { error: r.error.message } : r));
  } catch (error) {
    if (!(error instanceof Refused)) throw error;
    return queries.map(() => ({ error: error.message }));
  }
}

if (root && board) {
  const { dataset } = document.documentElement;
  const isNight = dataset.theme === "night" || localStorage.getItem(given.theme) === "night";
  const theme = isNight ? "night" : "light";
  dataset.theme = theme;
  const presented = { project, board };
  const close = () => location.assign(given.close + addressPart(shown));
  const stateNow = () => stateFrom(new URLSearchParams(location.search), board, project);
  // Without it every answer is a scan, as it would be anyway.
  const preparation = new Preparation(presented, (asked) => {
    post(`${given.server}/cells`, { ...asked, draft }).catch(() => {});
  });
  const begun = stateNow();
  let shown = begun.state;
  const addressPart = (state: BoardState) => withState("", state, presented).replace("?", "&");
  const view = new PresentedBoard(root, presented, {
    answers: new Answers(ask, given.answers),
    start: startPainter,
    theme,
    wantsMotion: () => !matchMedia("(prefers-reduced-motion: reduce)").matches,
    ...begun,
    onState: (state, action) => {
      shown = state;
      const search = withState(location.search, state, presented);
      writeHistory(`${location.pathname}${search}`, action);
    },
    onSettled: preparation.settled,
    onRows: (asked, of) => {
      void import("./rows-sheet").then((m) => m.openRowsSheet(asked, of, rowsOfServer(given.server, draft)));
    },
    link: (state) => location.origin + location.pathname + withState(location.search, state, presented),
    onClose: close,
  });
  addEventListener("popstate", () => {
    shown = stateNow().state;
    view.become(shown);
  });
  addEventListener("keydown", (event) => {
    if (leaves(event)) close();
  });
}
