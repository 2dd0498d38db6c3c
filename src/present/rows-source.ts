import type { Behind } from "@/core/engine/rows-behind";
import type { Filter, QueryInput } from "@/core/plan/query";

/** Some of a table's rows in the asked order, and how many there are. */
export interface RowsPart {
  total: number;
  columns: string[];
  rows: { number: number; cells: (string | null)[] }[];
}

/** Which rows are asked for. */
export interface RowsAsked {
  table: string;
  filters: Filter[];
  offset: number;
  limit: number;
  find: string;
  sort: { column: string; order: "asc" | "desc" } | null;
}

/** From where a board has the rows behind what it shows. */
export interface RowsSource {
  behind: (query: QueryInput, signal: AbortSignal) => Promise<Behind>;
  rows: (asked: RowsAsked, signal: AbortSignal) => Promise<RowsPart>;
  /** The address of a file with all of some rows. */
  file: (table: string, filters: Filter[], format: "csv" | "xlsx") => string;
}

/** Asks a server for JSON; what it says is wrong is the message of the error. */
async function json<T>(address: string, init: RequestInit): Promise<T> {
  const response = await fetch(address, init).catch((error: unknown) => {
    if (init.signal?.aborted) throw error;
    throw new Error("The server is away. Close the rows, and open them once it is back.");
  });
  const answer: unknown = await response.json();
  if (response.ok) return answer as T;
  throw new Error((answer as { error?: { message?: string } }).error?.message ?? `Status ${response.status}`);
}

/** The rows of a project that a server holds under an address, with what of it is not saved there yet. */
export function rowsOfServer(project: string, draft: unknown): RowsSource {
  const table = (name: string) => `${project}/tables/${encodeURIComponent(name)}`;
  return {
    behind: async (query, signal) => {
      const headers = { "content-type": "application/json" };
      const body = JSON.stringify({ query, draft });
      const found = await json<{ behind: Behind }>(`${project}/behind`, {
        method: "POST",
        headers,
        body,
        signal,
      });
      return found.behind;
    },
    rows: async ({ table: name, filters, offset, limit, find, sort }, signal) => {
      const asked = new URLSearchParams({
        filters: JSON.stringify(filters),
        offset: String(offset),
        limit: String(limit),
        find,
        visible: "1",
        ...(sort ? { sort: sort.column, order: sort.order } : {}),
      });
      return (await json<{ page: RowsPart }>(`${table(name)}/rows?${asked}`, { signal })).page;
    },
    file: (name, filters, format) =>
      `${table(name)}/export?${new URLSearchParams({ format, filters: JSON.stringify(filters), visible: "1" })}`,
  };
}
