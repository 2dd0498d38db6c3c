import type { QueryInput, Result } from "@/core/plan/query";

/** The answer to a query, or why there is none, in words. */
export type Answer = Result | { error: string };

/**
 * From where a board has its answers: a server, cells in the page, an engine in a worker. Rejects where it
 * cannot be reached; what cannot be answered is an answer.
 */
export type AnswerSource = (queries: QueryInput[], signal: AbortSignal) => Promise<Answer[]>;

/** What is answered in the page itself, at once; null for each query that is not. */
export type PageSource = (queries: QueryInput[]) => (Answer | null)[];

/** The most answers that are remembered. */
const MOST = 1000;
/** How long it takes until a source that was not reached is asked again, in milliseconds. */
const AGAIN = [500, 1000, 2000, 4000];

const keys = new WeakMap<QueryInput, string>();

/** Names a query by what it asks: written once for each. */
function keyOf(query: QueryInput): string {
  const key = keys.get(query) ?? JSON.stringify(query);
  keys.set(query, key);
  return key;
}

/** Answers by their queries: asked once, together with others of the same moment, and again until they come. */
export class Answers {
  private readonly known = new Map<string, Answer>();
  private asking: AbortController | null = null;
  private again: ReturnType<typeof setTimeout> | undefined;
  private tries = 0;
  private page: PageSource | null = null;
  /** What the page was asked and does not answer. */
  private readonly beyondPage = new Set<string>();

  constructor(
    private readonly source: AnswerSource,
    /** What is known before anything is asked. */
    given: [QueryInput, Answer][] = [],
  ) {
    for (const [query, answer] of given) this.known.set(keyOf(query), answer);
  }

  /** The answer to a query, if it is there. */
  of(query: QueryInput): Answer | null {
    return this.known.get(keyOf(query)) ?? null;
  }

  /** From now on what a page answers itself is asked nobody else; with null all is asked again. */
  answerInPage(page: PageSource | null): void {
    this.page = page;
    this.beyondPage.clear();
  }

  /** Whether a page answers something itself. */
  get hasPage(): boolean {
    return this.page !== null;
  }

  /** Whether something was asked that a page does not answer. */
  get isBeyondPage(): boolean {
    return this.beyondPage.size > 0;
  }

  /** Answers what is not known of some queries in the page, as far as it can; says whether anything was new. */
  findInPage(queries: QueryInput[]): boolean {
    if (!this.page) return false;
    const open = [...this.missing(queries)].filter(([key]) => !this.beyondPage.has(key));
    if (open.length === 0) return false;
    const answers = this.page(open.map(([, query]) => query));
    for (const [i, [key]] of open.entries()) {
      const answer = answers[i];
      if (answer) this.known.set(key, answer);
      else this.beyondPage.add(key);
    }
    this.forget();
    return answers.some((answer) => answer !== null);
  }

  /** The queries among some that are not answered, by their keys. */
  private missing(queries: QueryInput[]): Map<string, QueryInput> {
    return new Map(queries.map((q) => [keyOf(q), q] as const).filter(([key]) => !this.known.has(key)));
  }

  /** Lets go of the oldest where they are too many. */
  private forget(): void {
    if (this.beyondPage.size > MOST) this.beyondPage.clear();
    for (const oldest of this.known.keys()) {
      if (this.known.size <= MOST) break;
      this.known.delete(oldest);
    }
  }

  /**
   * Asks what is not known of some queries, and nothing that was asked before; `arrived` is told when all is,
   * `away` whenever the source was not reached, before it is asked again.
   */
  ask(queries: QueryInput[], arrived: () => void, away: () => void = () => {}): void {
    this.stop();
    const missing = this.missing(queries);
    if (missing.size === 0) return;
    const asking = new AbortController();
    this.asking = asking;
    this.source([...missing.values()], asking.signal).then(
      (answers) => {
        if (asking.signal.aborted) return;
        this.tries = 0;
        for (const [i, key] of [...missing.keys()].entries()) this.known.set(key, answers[i]);
        this.forget();
        arrived();
      },
      () => {
        if (asking.signal.aborted) return;
        const wait = AGAIN[Math.min(this.tries++, AGAIN.length - 1)];
        this.again = setTimeout(() => this.ask(queries, arrived, away), wait);
        away();
      },
    );
  }

  /** Asks no more. */
  stop(): void {
    clearTimeout(this.again);
    this.asking?.abort();
    this.asking = null;
  }
}
