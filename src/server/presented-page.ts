import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { formatNumber } from "@/core/base/number-format";
import { own } from "@/core/base/own";
import type { QueryInput } from "@/core/plan/query";
import { readingOrder } from "@/core/project/phone-layout";
import type { Board, Project } from "@/core/project/schema";
import { inputsOf, settingIn } from "@/core/view/board-state";
import { type Choice, choicesIn, choicesQuery, inLine } from "@/core/view/column-choices";
import { answersText, CLEAR_ALL, pickedInWords } from "@/core/view/picked-words";
import { valuesIn } from "@/core/view/settings";
import { stateFrom } from "@/core/view/state-address";
import { textQueries } from "@/core/view/text-names";
import type { Answer } from "@/present/answers";
import type { Given } from "@/present/given";
import { groundStyles } from "@/present/ground-styles";
import { tilePlaces } from "@/present/tile-place";
import { HttpError } from "./http/errors";
import { type Asked, type Begun, escaped, queryOf, styled, tileHtml } from "./presented-tiles";
import { answerQueries } from "./results";
import { settings } from "./settings";
import { readProject } from "./store/projects";

type Theme = "light" | "night";

/** Where the build put the page's script and styles, as addresses begin. */
const STATIC = "/_next/static/present";

/** The script and what it imports, and the styles themselves, so that a page stands before anything is fetched. */
function built(): { script: string; beside: string[]; styles: string } {
  const folder = join(settings.root, ".next/static/present");
  const names = readdirSync(folder);
  const named = (pattern: RegExp) => names.find((n) => pattern.test(n)) ?? "";
  return {
    script: `${STATIC}/${named(/^board-.*\.js$/)}`,
    beside: (JSON.parse(readFileSync(join(folder, "beside.json"), "utf8")) as string[]).map(
      (name) => `${STATIC}/${name}`,
    ),
    styles: readFileSync(join(folder, named(/^look-.*\.css$/)), "utf8"),
  };
}
let known: ReturnType<typeof built> | null = null;

/** JSON that cannot end the element it stands in, nor begin another. */
const inElement = (value: unknown) => JSON.stringify(value).replaceAll("<", "\\u003c");

/** The queries that a board asks as it begins: of its visuals (by the ids of their tiles), and all others. */
function queriesOf({ document, board, state }: Asked): {
  tiles: Map<string, QueryInput>;
  others: QueryInput[];
} {
  const tiles = new Map<string, QueryInput>();
  const texts: QueryInput[] = [];
  for (const tile of board.tiles) {
    if (tile.type === "text") texts.push(...textQueries(tile, { project: document, board, state }));
    if (tile.type !== "visual") continue;
    const visual = document.visuals.find((v) => v.id === tile.visual);
    const query = visual && queryOf({ document, board, state }, tile, visual);
    if (query) tiles.set(tile.id, query);
  }
  const choices = board.controls.flatMap((control) => {
    if (control.type === "filter")
      return control.as === "buttons" ? choicesQuery(control.table, control.column, control.by) : [];
    const from = document.inputs.find((i) => i.id === control.input)?.choicesFrom;
    return from ? choicesQuery(from.table, from.column) : [];
  });
  return { tiles, others: [...texts, ...choices] };
}

/** A control as it stands before it can be used: of the same size, so that nothing moves when it can. */
function controlHtml(
  { document, state }: Asked,
  control: Board["controls"][number],
  choices: Choice[],
): string {
  const width = control.width === "automatic" ? "" : ` data-width="${control.width}"`;
  const fieldset = (label: string, inner: string) =>
    `<fieldset class="board-control"${width} disabled><legend>${escaped(label)}</legend>${inner}</fieldset>`;
  if (control.type === "filter") {
    const setting = settingIn(state, control);
    if (control.as !== "buttons")
      return fieldset(control.label, `<div class="board-waiting-${control.as}"></div>`);
    const { shown, rest } = inLine(choices);
    const buttons = [
      "All",
      ...shown.map((c) => c.label),
      ...(rest.length > 0 ? [`${rest.length} more`] : []),
    ];
    const chosen = valuesIn(setting);
    const isOn = (i: number) => (i === 0 ? chosen.length === 0 : chosen.includes(shown[i - 1]?.value));
    const row = buttons.map((text, i) => `<button aria-pressed="${isOn(i)}">${escaped(text)}</button>`);
    return fieldset(
      control.label,
      `<div class="board-filter${control.many ? " board-many" : ""}">${row.join("")}</div>`,
    );
  }
  const input = document.inputs.find((i) => i.id === control.input);
  if (!input) return "";
  const value = own(inputsOf(document.inputs, state), input.name) ?? input.value;
  const text = typeof value === "number" ? formatNumber(value, input.format) : String(value ?? "");
  const field = (name: string) => `<input class="${name}" value="${escaped(text)}">`;
  const isStepper = input.type === "number" && input.choices.length === 0 && !input.choicesFrom;
  const [down, up] = [`<button class="icon-button">−</button>`, `<button class="icon-button">+</button>`];
  const inner = isStepper ? `<div class="board-stepper">${down}${field("")}${up}</div>` : field("field");
  return fieldset(input.label, inner);
}

/** What is picked, as it stands before it can be cleared. */
function pickedHtml({ document, board, state }: Asked): string {
  const chips = pickedInWords(state, document).map(
    ({ text, from }) =>
      `<span class="board-chip"><b>${escaped(text)}</b><span>from ${escaped(from)}</span><button class="icon-button"></button></span>`,
  );
  if (chips.length === 0) return "";
  return `<div class="board-picked"><span class="board-picked-name">Picked</span>${chips.join("")}<span class="board-answers">${answersText(state, { board, project: document })}</span><button class="board-button">${CLEAR_ALL}</button></div>`;
}

/** A page does not wait longer for its answers, in milliseconds: then it stands without, and asks itself. */
const PATIENCE = 2000;

/** The answers to queries; null where they take too long. */
async function answersInTime(
  projectId: string,
  document: Project,
  queries: QueryInput[],
  signal: AbortSignal,
): Promise<Answer[] | null> {
  const late = AbortSignal.any([signal, AbortSignal.timeout(PATIENCE)]);
  try {
    const results = await answerQueries(projectId, document, queries, late);
    return results.map((r): Answer => ("error" in r ? { error: r.error.message } : r));
  } catch (error) {
    if (signal.aborted || !late.aborted) throw error;
    return null;
  }
}

/**
 * A board as a page of its own: it stands as the server draws it before any script runs, and is then kept
 * alive by the presenter. `nonce` is that of the page's policy; the address says the theme that it is drawn in
 * at first, and what its reader has changed.
 * Throws 404 where there is no such board.
 */
export async function presentedPage(
  projectId: string,
  boardId: string,
  { nonce, address }: { nonce: string; address: URLSearchParams },
  signal: AbortSignal,
): Promise<string> {
  const theme = address.get("theme") === "night" ? "night" : "light";
  const { document } = readProject(projectId);
  const board = document.boards.find((b) => b.id === boardId);
  if (!board)
    throw new HttpError(
      404,
      "no_board",
      "There is no such board. It may have been removed; go back to the project.",
    );
  known ??= built();
  const { state } = stateFrom(address, board, document);
  const asked = { document, board, state };
  const { tiles: byTile, others } = queriesOf(asked);
  const queries = [...byTile.values(), ...others];
  const answers = await answersInTime(projectId, document, queries, signal);
  const answered = new Map(queries.map((query, i) => [JSON.stringify(query), answers?.[i] ?? null]));
  const answerTo = (query: QueryInput) => answered.get(JSON.stringify(query)) ?? null;
  const shown = new Set(board.tiles.flatMap((t) => (t.type === "visual" ? t.visual : [])));
  const given: Given = {
    id: projectId,
    events: "/api/events",
    // What no tile shows is not taken along.
    project: { ...document, visuals: document.visuals.filter((v) => shown.has(v.id)), boards: [board] },
    board: board.id,
    boards: document.boards.map(({ id, name }) => ({ id, name })),
    answers: answers ? queries.map((query, i) => [query, answers[i]]) : [],
    server: `/api/projects/${encodeURIComponent(projectId)}`,
    close: `/p/${encodeURIComponent(projectId)}/boards?board=${encodeURIComponent(board.id)}`,
    theme: "cavlo.theme",
  };
  const begun: Begun = { ...asked, answerTo, places: tilePlaces(board), theme };
  const tiles = readingOrder(board.tiles).map((tile) => tileHtml(begun, tile));
  const controls = board.controls.map((c) => {
    const answer =
      c.type === "filter" && c.as === "buttons" ? answerTo(choicesQuery(c.table, c.column, c.by)) : null;
    return controlHtml(asked, c, choicesIn(answer, c.type === "filter" ? c.by : undefined, document));
  });
  const isScaled = board.width !== "fluid";
  const sheet = isScaled
    ? `class="board-sheet board-scaled" style="--width:${board.width}"`
    : `class="board-sheet"`;
  // The scale is known in the window alone, and has to be there before anything is painted.
  const scale = isScaled
    ? `<script nonce="${nonce}">document.currentScript.parentElement.style.setProperty("--scale",innerWidth/${board.width})</script>`
    : "";
  const body = `<main id="board" class="presented board-fills"><div ${sheet}>${scale}
<header class="board-head"><h1>${escaped(board.name)}</h1>${controls.join("")}${pickedHtml(asked)}</header>
<div class="board-body" style="${styled(groundStyles(board.look.ground, theme))}"><div class="board-grid">${tiles.join("")}</div></div>
</div></main>
<script id="given" type="application/json" nonce="${nonce}">${inElement(given)}</script>
${known.beside.map((name) => `<link rel="modulepreload" href="${name}" nonce="${nonce}">`).join("")}
<script type="module" src="${known.script}" nonce="${nonce}"></script>`;
  return pageOf(`${board.name} · ${document.name}`, body, { styles: known.styles, nonce, theme });
}

/** A page that says why a board is not shown, with the way back. */
export function problemPage(message: string, projectId: string, nonce: string): string {
  known ??= built();
  const body = `<main class="board-text"><h1>This board cannot be shown</h1><p>${escaped(message)}</p><p><a href="/p/${encodeURIComponent(projectId)}/boards">To the project</a> · <a href="/">To all projects</a></p></main>`;
  return pageOf("Cavlo", body, { styles: known.styles, nonce, theme: "light" });
}

const pageOf = (
  title: string,
  body: string,
  { styles, nonce, theme }: { styles: string; nonce: string; theme: Theme },
) => `<!doctype html>
<html lang="en" data-theme="${theme}">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escaped(title)}</title>
<link rel="icon" href="/mark.svg">
<link rel="stylesheet" href="/fonts/alphabets.css">
<style nonce="${nonce}">${styles}</style>
</head>
<body>
${body}
</body>
</html>`;
