import type { Filter, QueryInput } from "@/core/plan/query";
import type { touchedBy } from "@/core/view/board-state";

/** What a board may be asked: its queries, by what they may be filtered, and how they are now. */
export interface Preparing {
  board: string;
  queries: QueryInput[];
  touched: ReturnType<typeof touchedBy>;
  now: Filter[];
}

/** Who gathers the cells of a board: its server. */
export interface CellsSource {
  /** Says what a board may be asked, so that it is answered without a scan. */
  prepare: (asked: Preparing) => void;
  /** The cells of a board as bytes, once they are gathered; null where there are none for its page. */
  bytes: (asked: Preparing, signal: AbortSignal) => Promise<Uint8Array | null>;
}

/** The cells that a server gathers for a project under an address, with what of it is not saved there yet. */
export function cellsOfServer(project: string, draft: unknown): CellsSource {
  const post = (address: string, asked: Preparing, signal?: AbortSignal) =>
    fetch(project + address, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ ...asked, draft }),
      ...(signal ? { signal } : {}),
    });
  return {
    prepare: (asked) => {
      // Without cells every answer is a scan, as it would be anyway.
      post("/cells", asked).catch(() => {});
    },
    bytes: async (asked, signal) => {
      const response = await post("/cells/bytes", asked, signal);
      return response.status === 200 ? new Uint8Array(await response.arrayBuffer()) : null;
    },
  };
}
