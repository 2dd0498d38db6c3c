import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { formatNumber } from "@/core/base/number-format";
import type { QueryInput } from "@/core/plan/query";
import type { Board, Project } from "@/core/project/schema";
import { GAP, ROW_HEIGHT, tileStyle } from "@/core/project/tile-layout";
import { filtersOf, UNTOUCHED } from "@/core/view/board-state";
import { type Choice, choicesIn, choicesQuery, inLine } from "@/core/view/column-choices";
import { pictureOf } from "@/core/view/picture";
import { toQuery } from "@/core/view/query";
import type { Answer } from "@/present/answers";
import type { Given } from "@/present/given";
import { sceneToSvg } from "@/render/svg-text";
import { boxOf } from "./board-picture";
import { HttpError } from "./http/errors";
import { answerQueries } from "./results";
import { settings } from "./settings";
import { readProject } from "./store/projects";

type Theme = "light" | "night";

/** Where the build put the page's script and styles, as addresses begin. */
const STATIC = "/_next/static/present";

/** The name of the script, and the styles themselves, so that a page stands before anything else is fetched. */
function built(): { script: string; styles: string } {
  const folder = join(settings.root, ".next/static/present");
  const names = readdirSync(folder);
  const named = (pattern: RegExp) => names.find((n) => pattern.test(n)) ?? "";
  return {
    script: `${STATIC}/${named(/^board-.*\.js$/)}`,
    styles: readFileSync(join(folder, named(/^look-.*\.css$/)), "utf8"),
  };
}
let known: ReturnType<typeof built> | null = null;

const ENTITIES: Record<string, string> = { "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;" };
const escaped = (text: string) => text.replace(/[&<>"]/g, (sign) => ENTITIES[sign]);

/** JSON that cannot end the element it stands in, nor begin another. */
const inElement = (value: unknown) => JSON.stringify(value).replaceAll("<", "\\u003c");

/** The queries that a board asks as it begins: of its visuals (by their ids), and of what can be chosen. */
function queriesOf(
  document: Project,
  board: Board,
): { visuals: Map<string, QueryInput>; choices: QueryInput[] } {
  const filters = filtersOf(board.controls, UNTOUCHED);
  const visuals = new Map<string, QueryInput>();
  for (const tile of board.tiles) {
    const visual = tile.type === "visual" && document.visuals.find((v) => v.id === tile.visual);
    const query = visual && toQuery(visual, document, filters, {});
    if (visual && query) visuals.set(visual.id, query);
  }
  const choices = board.controls.flatMap((control) => {
    if (control.type === "filter") return choicesQuery(control.table, control.column, control.by);
    const from = document.inputs.find((i) => i.id === control.input)?.choicesFrom;
    return from ? choicesQuery(from.table, from.column) : [];
  });
  return { visuals, choices };
}

function tileHtml(
  document: Project,
  board: Board,
  tile: Board["tiles"][number],
  answers: Map<string, Answer | null>,
  theme: Theme,
) {
  const style = Object.entries(tileStyle(tile))
    .map(([name, value]) => `${name}:${value}`)
    .join(";");
  const within = (inner: string) => `<div class="board-tile" style="${style}">${inner}</div>`;
  if (tile.type === "text")
    return within(`<div class="board-text">${escaped(tile.text || "An empty text.")}</div>`);
  const visual = document.visuals.find((v) => v.id === tile.visual);
  if (!visual) return within(`<div class="board-text">The visual of this tile was removed.</div>`);
  const { width, height } = boxOf(tile);
  const filters = filtersOf(board.controls, UNTOUCHED);
  const scene = pictureOf(visual, document, answers.get(visual.id) ?? null, {
    size: { width, height },
    theme,
    filters,
  });
  const svg = sceneToSvg(scene, { prefix: `first-${tile.id}-` });
  return within(
    `<div class="board-visual" role="img" aria-label="${escaped(scene.description)}">${svg}</div>`,
  );
}

/** A control as it stands before it can be used: of the same size, so that nothing moves when it can. */
function controlHtml(document: Project, control: Board["controls"][number], choices: Choice[]): string {
  const fieldset = (label: string, inner: string) =>
    `<fieldset disabled><legend>${escaped(label)}</legend>${inner}</fieldset>`;
  if (control.type === "filter") {
    const { shown, rest } = inLine(choices);
    const buttons = [
      "All",
      ...shown.map((c) => c.label),
      ...(rest.length > 0 ? [`${rest.length} more`] : []),
    ];
    const isOn = (i: number) =>
      i === 0 ? control.chosen.length === 0 : control.chosen.includes(shown[i - 1]?.value);
    const row = buttons.map((text, i) => `<button aria-pressed="${isOn(i)}">${escaped(text)}</button>`);
    return fieldset(control.label, `<div class="board-filter">${row.join("")}</div>`);
  }
  const input = document.inputs.find((i) => i.id === control.input);
  if (!input) return "";
  const text =
    typeof input.value === "number" ? formatNumber(input.value, input.format) : String(input.value ?? "");
  const field = (name: string) => `<input class="${name}" value="${escaped(text)}">`;
  const isStepper = input.type === "number" && input.choices.length === 0 && !input.choicesFrom;
  const [down, up] = [`<button class="icon-button">−</button>`, `<button class="icon-button">+</button>`];
  const inner = isStepper ? `<div class="board-stepper">${down}${field("")}${up}</div>` : field("field");
  return fieldset(input.label, inner);
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
 * alive by the presenter. `nonce` is that of the page's policy, `theme` the one that it is drawn in at first.
 * Throws 404 where there is no such board.
 */
export async function presentedPage(
  projectId: string,
  boardId: string,
  { nonce, theme }: { nonce: string; theme: Theme },
  signal: AbortSignal,
): Promise<string> {
  const { document } = readProject(projectId);
  const board = document.boards.find((b) => b.id === boardId);
  if (!board)
    throw new HttpError(
      404,
      "no_board",
      "There is no such board. It may have been removed; go back to the project.",
    );
  known ??= built();
  const { visuals, choices } = queriesOf(document, board);
  const queries = [...visuals.values(), ...choices];
  const answers = await answersInTime(projectId, document, queries, signal);
  const byVisual = new Map([...visuals.keys()].map((id, i) => [id, answers?.[i] ?? null]));
  const shown = new Set(visuals.keys());
  const given: Given = {
    // What no tile shows is not taken along.
    project: { ...document, visuals: document.visuals.filter((v) => shown.has(v.id)), boards: [board] },
    board: board.id,
    answers: answers ? queries.map((query, i) => [query, answers[i]]) : [],
    results: `/api/projects/${encodeURIComponent(projectId)}/results`,
    cells: `/api/projects/${encodeURIComponent(projectId)}/cells`,
    close: `/p/${encodeURIComponent(projectId)}/boards?board=${encodeURIComponent(board.id)}`,
    theme: "cavlo.theme",
  };
  const tiles = board.tiles
    .toSorted((a, b) => a.y - b.y || a.x - b.x)
    .map((tile) => tileHtml(document, board, tile, byVisual, theme));
  const choicesOf = (query: QueryInput) => {
    const at = queries.findIndex((q) => JSON.stringify(q) === JSON.stringify(query));
    return answers?.[at] ?? null;
  };
  const controls = board.controls.map((c) => {
    const answer = c.type === "filter" ? choicesOf(choicesQuery(c.table, c.column, c.by)) : null;
    return controlHtml(document, c, choicesIn(answer, c.type === "filter" ? c.by : undefined, document));
  });
  const body = `<div id="board" class="presented">
<header class="board-head"><h1>${escaped(board.name)}</h1>${controls.join("")}</header>
<div class="board-body"><div class="board-grid" style="grid-auto-rows:${ROW_HEIGHT}px;gap:${GAP}px">${tiles.join("")}</div></div>
</div>
<script id="given" type="application/json" nonce="${nonce}">${inElement(given)}</script>
<script type="module" src="${known.script}" nonce="${nonce}"></script>`;
  return pageOf(`${board.name} · ${document.name}`, body, { styles: known.styles, nonce, theme });
}

/** A page that says why a board is not shown, with the way back. */
export function problemPage(message: string, projectId: string, nonce: string): string {
  known ??= built();
  const body = `<div class="board-text"><p>${escaped(message)}</p><p><a href="/p/${encodeURIComponent(projectId)}/boards">To the project</a> · <a href="/">To all projects</a></p></div>`;
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
