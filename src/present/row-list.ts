import type { Value } from "@/core/base/value";
import { element } from "./elements";
import { numberText } from "./number-text";
import type { RowsAsked, RowsPart } from "./rows-source";

/** The height of a row, in pixels. */
const ROW = 30;
/** So many rows are asked for at once. */
const PAGE = 200;
/** The pages that are kept. */
const KEPT = 20;
/** The widths that a column can have, and of a letter in it, in pixels. */
const [LEAST, MOST, LETTER] = [72, 320, 7.4];

type Wish = Pick<RowsAsked, "find" | "sort">;

/**
 * The rows of a table, of which only those in sight are elements: they are asked for page by page, sorted by
 * a click on a column's name.
 */
export class RowList {
  readonly root: HTMLElement;
  private readonly head = element("tr", {});
  private readonly body = element("tbody", {});
  private readonly foot = element("tr", {});
  private readonly table: HTMLTableElement;
  private readonly columns = element("colgroup", {});
  private pages = new Map<number, RowsPart["rows"]>();
  private names: string[] = [];
  private total = 0;
  private wish: Wish = { find: "", sort: null };
  private asking = new AbortController();
  private readonly asked = new Set<number>();

  constructor(
    label: string,
    /** The sums of columns by their names, in words. */
    private readonly sums: Map<string, string>,
    private readonly count: number,
    private readonly fetchPage: (
      asked: Wish & { offset: number; limit: number },
      signal: AbortSignal,
    ) => Promise<RowsPart>,
    /** Told how many rows there are, or why there are none. */
    private readonly tell: (found: number | Error) => void,
  ) {
    this.table = element(
      "table",
      { "aria-label": label },
      this.columns,
      element("thead", {}, this.head),
      this.body,
      element("tfoot", {}, this.foot),
    );
    this.root = element(
      "div",
      { class: "rows-list", role: "region", "aria-label": label, tabindex: 0, onscroll: () => this.draw() },
      this.table,
    );
  }

  /** Asks for the rows in which a text is found, in an order. */
  ask(wish: Partial<Wish>): void {
    this.wish = { ...this.wish, ...wish };
    this.asking.abort();
    this.asking = new AbortController();
    this.pages.clear();
    this.asked.clear();
    this.root.scrollTop = 0;
    this.load(0);
  }

  dispose(): void {
    this.asking.abort();
  }

  private load(page: number): void {
    if (this.asked.has(page)) return;
    this.asked.add(page);
    const { signal } = this.asking;
    this.fetchPage({ ...this.wish, offset: page * PAGE, limit: PAGE }, signal).then(
      (part) => {
        if (signal.aborted) return;
        if (this.names.length === 0) this.widen(part);
        this.names = part.columns;
        this.total = part.total;
        this.pages.set(page, part.rows);
        for (const oldest of this.pages.keys()) {
          if (this.pages.size <= KEPT) break;
          this.pages.delete(oldest);
          this.asked.delete(oldest);
        }
        if (page === 0) this.tell(part.total);
        this.writeHead();
        this.draw();
      },
      (error: Error) => {
        if (signal.aborted) return;
        this.asked.delete(page);
        this.tell(error);
      },
    );
  }

  /** The columns are as wide as what stands in the first rows, and stay so. */
  private widen({ columns, rows }: RowsPart): void {
    const widths = columns.map((name, i) => {
      const longest = rows.reduce(
        (most, { cells }) => Math.max(most, cells[i]?.length ?? 0),
        Math.max(name.length + 2, this.sumOf(name, i).length),
      );
      return Math.round(Math.min(MOST, Math.max(LEAST, longest * LETTER + 24)));
    });
    const number = 76;
    const cols = [number, ...widths].map((width) => {
      const col = element("col", {});
      col.style.width = `${width}px`;
      return col;
    });
    this.columns.replaceChildren(...cols);
    this.table.style.width = `max(100%, ${[number, ...widths].reduce((sum, w) => sum + w, 0)}px)`;
  }

  /** What stands below a column: its sum, or below the first how many rows there are. */
  private sumOf(name: string, at: number): string {
    return this.sums.get(name) ?? (at === 0 ? rowsText(this.count) : "");
  }

  private writeHead(): void {
    const { sort } = this.wish;
    const focused = this.head.contains(document.activeElement)
      ? (document.activeElement as HTMLElement).dataset.column
      : undefined;
    const cells = this.names.map((name) => {
      const order = sort?.column === name ? sort.order : null;
      const button = element(
        "button",
        {
          type: "button",
          "data-column": name,
          title: `Sort by ${name}`,
          onclick: () => this.ask({ sort: nextSort(name, this.wish.sort) }),
        },
        name,
        order ? element("span", { "aria-hidden": "true" }, order === "asc" ? " ↑" : " ↓") : "",
      );
      const said = order && (order === "asc" ? "ascending" : "descending");
      const isNumber = this.sums.has(name);
      return element("th", { scope: "col", "aria-sort": said, class: isNumber ? "rows-number" : "" }, button);
    });
    this.head.replaceChildren(element("th", { scope: "col" }, "Row"), ...cells);
    this.foot.replaceChildren(
      element("th", { scope: "row" }, "All"),
      ...this.names.map((name, i) =>
        element("td", { class: this.sums.has(name) ? "rows-number" : "" }, this.sumOf(name, i)),
      ),
    );
    if (focused !== undefined)
      [...this.head.querySelectorAll("button")].find((b) => b.dataset.column === focused)?.focus();
  }

  /** Writes the rows in sight, and asks for those that are not here. */
  private draw(): void {
    const { scrollTop, clientHeight } = this.root;
    const first = Math.max(0, Math.floor(scrollTop / ROW) - 10);
    const past = Math.min(this.total, Math.ceil((scrollTop + clientHeight) / ROW) + 10);
    const rows: HTMLElement[] = [];
    for (let at = first; at < past; at++) {
      const page = Math.floor(at / PAGE);
      const row = this.pages.get(page)?.[at % PAGE];
      if (!row) this.load(page);
      rows.push(this.rowOf(row, at));
    }
    const space = (rowCount: number) => {
      const filler = element("tr", { "aria-hidden": "true" });
      filler.style.height = `${rowCount * ROW}px`;
      return filler;
    };
    this.table.setAttribute("aria-rowcount", String(this.total + 2));
    this.body.replaceChildren(space(first), ...rows, space(this.total - past));
  }

  private rowOf(row: RowsPart["rows"][number] | undefined, at: number): HTMLElement {
    const cells = this.names.map((name, i) => {
      const cell = row?.cells[i] ?? "";
      return element("td", { class: this.sums.has(name) ? "rows-number" : "", title: cell }, cell);
    });
    const number = row ? numberText(row.number) : "…";
    const made = element(
      "tr",
      { "aria-rowindex": at + 2 },
      element("th", { scope: "row" }, number),
      ...cells,
    );
    made.style.height = `${ROW}px`;
    return made;
  }
}

/** Ascending, then descending, then as the table has them. */
function nextSort(column: string, sort: Wish["sort"]): Wish["sort"] {
  if (sort?.column !== column) return { column, order: "asc" };
  return sort.order === "asc" ? { column, order: "desc" } : null;
}

/** "1 row", "8 731 rows". */
export const rowsText = (count: number): string => `${numberText(count)} ${count === 1 ? "row" : "rows"}`;

/** A sum as it is written below its column. */
export const sumText = (value: Value): string => (typeof value === "number" ? numberText(value) : "");
