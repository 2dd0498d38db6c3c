import { z } from "zod";
import { DATE_BUCKETS } from "@/core/base/calendar";
import { findNamed } from "@/core/base/names";
import type { Behind } from "@/core/engine/rows-behind";
import { firstIssue } from "@/core/plan/first-issue";
import { filterSchema, type Query, type QueryInput, querySchema, valueSchema } from "@/core/plan/query";
import { scopeOf } from "@/core/project/names";
import {
  conventionsSchema,
  inputSchema,
  linkSchema,
  measureSchema,
  type Project,
  tableSchema,
} from "@/core/project/schema";
import { boardCells } from "./cells/board-cells";
import { compute } from "./compute/client";
import type { QueryAnswer } from "./compute/protocol";
import { HttpError } from "./http/errors";
import { storedTables } from "./store/projects";

/**
 * The parts of a document that queries depend on; an editor sends its own where they are newer than
 * what is saved.
 */
export const draftSchema = z.object({
  tables: z.array(tableSchema).max(200),
  links: z.array(linkSchema).max(200).default([]),
  /**
   * A measure that is not sound yet, since somebody is writing it, is its own problem: queries that name it
   * hear that it is not there.
   */
  measures: z
    .array(z.unknown())
    .max(1000)
    .transform((list) =>
      list.flatMap((m): z.output<typeof measureSchema>[] => {
        const parsed = measureSchema.safeParse(m);
        return parsed.success ? [parsed.data] : [];
      }),
    ),
  inputs: z.array(inputSchema).max(200),
  conventions: conventionsSchema.prefault({}),
});
/** Measures and inputs that are not saved yet. */
export type Draft = z.infer<typeof draftSchema>;

/** Queries, with what of the document is not saved yet. */
export const resultsRequestSchema = z.object({
  queries: z.array(z.unknown()).max(200),
  draft: draftSchema.optional(),
});

/** What a board may ask: its queries without what is filtered there, the columns that may be, and how they are. */
export const cellsRequestSchema = z.object({
  board: z.string().max(200),
  queries: z.array(querySchema).max(200),
  touched: z
    .array(z.strictObject({ column: z.string().min(1).max(320), by: z.enum(DATE_BUCKETS).optional() }))
    .max(50),
  now: z.array(filterSchema).max(50),
  draft: draftSchema.optional(),
});

type BoardAsked = Omit<z.output<typeof cellsRequestSchema>, "draft">;

/**
 * Gathers cells for a board that is looked at, so that what is filtered there is answered without a scan.
 * Resolves when they are there, or cannot be. Throws an HttpError where the draft's tables are not stored so.
 */
export const prepareCells = async (projectId: string, draft: Draft, asked: BoardAsked): Promise<void> =>
  boardCells().prepare(wantedCells(projectId, draft, asked));

/**
 * The cells of a board that is looked at as bytes, for its page to answer from; null where there are none for
 * it. Throws an HttpError as `prepareCells` does.
 */
export const cellBytes = async (
  projectId: string,
  draft: Draft,
  asked: BoardAsked,
): Promise<Uint8Array | null> => boardCells().bytes(wantedCells(projectId, draft, asked));

function wantedCells(projectId: string, draft: Draft, { board, ...asked }: BoardAsked) {
  checkTables(projectId, draft.tables);
  const data = { tables: draft.tables, scope: scopeOf(draft) };
  return { projectId, board, data, inputs: inputsOf(draft), asked };
}

const inputsOf = ({ inputs }: Draft) =>
  Object.fromEntries(inputs.map((i) => [i.name, valueSchema.parse(i.value)]));

/**
 * Refuses a document that names rows of another project, or says something else of their rows and columns
 * than is stored.
 */
export function checkTables(projectId: string, tables: Project["tables"]): void {
  const stored = storedTables(projectId);
  for (const t of tables) {
    const size = stored.get(t.id);
    if (size === undefined)
      throw new HttpError(400, "no_table", `The rows of the table ${t.name} are not stored in this project.`);
    if (size.columns !== t.columns.length)
      throw new HttpError(
        400,
        "bad_table",
        `The table ${t.name} is stored with ${size.columns} columns, not ${t.columns.length}.`,
      );
    if (size.rows !== t.rows)
      throw new HttpError(
        400,
        "bad_table",
        `The table ${t.name} is stored with ${size.rows} rows, not ${t.rows}.`,
      );
  }
}

/**
 * The rows behind a query, and how its measures come to their values. Throws a QueryError where it
 * cannot be answered.
 */
export async function answerBehind(
  projectId: string,
  draft: Draft,
  query: Query,
  signal?: AbortSignal,
): Promise<Behind> {
  checkTables(projectId, draft.tables);
  const { tables } = draft;
  const question = { tables, scope: scopeOf(draft), inputs: inputsOf(draft), query };
  const answer = await compute({ type: "behind", ...question }, projectId, signal);
  if (!("behind" in answer)) throw new Error("the compute thread answered something else");
  // The sum of a hidden column would tell what is in it.
  const hiddenIn = (table: string) => {
    const info = findNamed(tables, table);
    const columns = [...(info?.columns ?? []), ...(info?.derived ?? [])];
    return new Set(columns.filter((c) => c.hidden).map((c) => c.name));
  };
  return {
    ...answer.behind,
    tables: answer.behind.tables.map((t) => ({
      ...t,
      sums: t.sums.filter(([column]) => !hiddenIn(t.table).has(column)),
    })),
  };
}

/**
 * Answers queries in order; one that is malformed or cannot be answered gives its error and does not spoil
 * the others.
 */
export async function answerQueries(
  projectId: string,
  draft: Draft,
  queries: unknown[],
  signal?: AbortSignal,
): Promise<QueryAnswer[]> {
  checkTables(projectId, draft.tables);
  const checked = queries.map((q) => querySchema.safeParse(q));
  const good = checked.flatMap((c) => (c.success ? [c.data] : []));
  const inputs = inputsOf(draft);
  const scope = scopeOf(draft);
  const { tables } = draft;
  const known = await boardCells().answer(projectId, { tables, scope }, inputs, good, signal);
  const rest = good.filter((_, i) => known[i] === null);
  const answer = rest.length
    ? await compute({ type: "results", tables, scope, inputs, queries: rest }, projectId, signal)
    : { results: [] };
  const scanned = "results" in answer ? answer.results.slice() : [];
  return checked.map((c) => {
    if (c.success) return known.shift() ?? (scanned.shift() as QueryAnswer);
    const { path, message } = firstIssue(c.error);
    return { error: { code: "bad_query", message: `${path.map(String).join(".") || "query"}: ${message}` } };
  });
}

/** Answers one query or throws its error. */
export async function answerQuery(projectId: string, draft: Draft, query: QueryInput, signal?: AbortSignal) {
  const [result] = await answerQueries(projectId, draft, [query], signal);
  return result;
}
