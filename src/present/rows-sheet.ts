import { formatNumber } from "@/core/base/number-format";
import type { Value } from "@/core/base/value";
import type { Behind, TableBehind } from "@/core/engine/rows-behind";
import { withParts, workedParts } from "@/core/formula/worked";
import type { QueryInput } from "@/core/plan/query";
import { scopeOf } from "@/core/project/names";
import type { Project } from "@/core/project/schema";
import { filterText } from "@/core/rows/filter-text";
import { element, sign } from "./elements";
import { numberText } from "./number-text";
import { RowList, rowsText, sumText } from "./row-list";
import type { RowsSource } from "./rows-source";

/** Of what the rows are asked for: its name, and the query of which they are all rows. */
export interface BehindAsked {
  name: string;
  query: QueryInput;
}

/** A value as a part of a formula. */
const partText = (value: Value): string => (typeof value === "number" ? numberText(value) : String(value));

/** A measure as it comes to its value: "carried / :goal = 1 145 029 / 6 000 000 = 19 %". */
function workedText(project: Project, { name, value, parts }: Behind["measures"][number]): string {
  const measure = project.measures.find((m) => m.name === name);
  if (!measure) return "";
  const places = workedParts(measure.formula, scopeOf(project), measure.table);
  const shown = typeof value === "number" ? formatNumber(value, measure.format) : partText(value);
  const isWhole = places.length === 1 && places[0].end - places[0].start === measure.formula.trim().length;
  const steps = parts.length === places.length && parts.length > 0 && !isWhole;
  const worked = steps ? [withParts(measure.formula, places, parts.map(partText))] : [];
  // On as many lines as it is written on, it would be hard to follow.
  return [`${measure.label}: ${measure.formula}`, ...worked, shown].join(" = ").replace(/\s+/g, " ");
}

/**
 * Shows the rows behind something in a sheet over the page: a tab for each table that its measures read, how
 * their formulas come to what is shown, and files of the rows. Closed, the focus is back where it was.
 */
export function openRowsSheet(asked: BehindAsked, project: Project, source: RowsSource): void {
  const asking = new AbortController();
  let list: RowList | null = null;
  const status = element("p", { class: "rows-status", role: "status" }, "Looking for the rows …");
  const body = element("div", { class: "rows-body" });
  const cross = element(
    "button",
    { type: "button", class: "icon-button", "aria-label": "Close the rows", onclick: () => sheet.close() },
    sign("close", 16),
  );
  const title = element("h2", { id: "rows-title" }, `Rows behind ${asked.name}`);
  const head = element("header", { class: "rows-head" }, title, status, cross);
  const sheet = element(
    "dialog",
    {
      class: "rows-sheet",
      "aria-labelledby": "rows-title",
      onclose: () => {
        asking.abort();
        list?.dispose();
        sheet.remove();
      },
    },
    head,
    body,
  );
  document.body.append(sheet);
  sheet.showModal();

  const show = (behind: Behind, at: number) => {
    list?.dispose();
    const table = behind.tables[at];
    list = listOf(table, source, (found) => {
      if (found instanceof Error) status.textContent = found.message;
      else
        status.textContent =
          found === table.count ? rowsText(found) : `${rowsText(found)} of ${rowsText(table.count)}`;
    });
    body.replaceChildren(
      ...(behind.tables.length > 1 ? [tabsOf(behind.tables, at, (next) => show(behind, next))] : []),
      aboutOf(behind, table, project),
      toolsOf(table, source, list),
      list.root,
    );
    list.ask({});
  };
  source.behind(asked.query, asking.signal).then(
    (behind) => {
      if (behind.tables.length > 0) return show(behind, 0);
      status.textContent = "No table is read for it.";
      body.replaceChildren(...behind.measures.map((m) => element("p", {}, workedText(project, m))));
    },
    (error: Error) => {
      if (!asking.signal.aborted) status.textContent = error.message;
    },
  );
}

function listOf(table: TableBehind, source: RowsSource, tell: (found: number | Error) => void): RowList {
  const { table: name, filters, count } = table;
  const sums = new Map(table.sums.map(([column, sum]) => [column, sumText(sum)]));
  return new RowList(
    `Rows of ${name}`,
    sums,
    count,
    (wish, signal) => source.rows({ table: name, filters, ...wish }, signal),
    tell,
  );
}

/** The tables, one to be looked at: arrows go from one to the next. */
function tabsOf(tables: TableBehind[], at: number, choose: (at: number) => void): HTMLElement {
  const tabs = tables.map(({ table, count }, i) =>
    element(
      "button",
      {
        type: "button",
        role: "tab",
        "aria-selected": String(i === at),
        tabindex: i === at ? 0 : -1,
        onclick: () => choose(i),
      },
      `${table}, ${rowsText(count)}`,
    ),
  );
  const row = element(
    "div",
    {
      role: "tablist",
      "aria-label": "Tables",
      class: "rows-tabs",
      onkeydown: (event: KeyboardEvent) => {
        const step = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
        if (step === undefined) return;
        event.preventDefault();
        choose((at + step + tables.length) % tables.length);
        document.querySelector<HTMLElement>(".rows-tabs [aria-selected=true]")?.focus();
      },
    },
    ...tabs,
  );
  return row;
}

/** What keeps the rows, and how formulas come to what is shown. */
function aboutOf(behind: Behind, { filters, unfiltered }: TableBehind, project: Project): HTMLElement {
  const kept = filters.length ? filters.map(filterText).join(", ") : "all rows";
  const whole = unfiltered.map((c) => `It has nothing that means ${c}, so that filter leaves it whole.`);
  const lines = [kept, ...whole, ...behind.measures.map((m) => workedText(project, m)).filter(Boolean)];
  return element("div", { class: "rows-about" }, ...lines.map((line) => element("p", { title: line }, line)));
}

/** Waits until somebody has typed, in milliseconds. */
const TYPED = 200;

function toolsOf({ table, filters }: TableBehind, source: RowsSource, list: RowList): HTMLElement {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const find = element("input", {
    type: "search",
    class: "rows-find",
    placeholder: "Find in the rows",
    "aria-label": "Find in the rows",
    oninput: () => {
      clearTimeout(timer);
      timer = setTimeout(() => list.ask({ find: find.value }), TYPED);
    },
  });
  const file = (format: "csv" | "xlsx") =>
    element(
      "a",
      { class: "board-button", href: source.file(table, filters, format), download: "" },
      `Take ${format.toUpperCase()}`,
    );
  return element("div", { class: "rows-tools" }, find, file("csv"), file("xlsx"));
}
