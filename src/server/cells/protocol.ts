import type { Value } from "@/core/base/value";
import type { PlainIndex } from "@/core/engine/cells/plain-index";
import type { Scope } from "@/core/formula/expr";
import type { Query, Result } from "@/core/plan/query";

/** What the thread that holds cells is asked. */
export type CellRequest =
  | { type: "hold"; id: number; index: PlainIndex }
  | { type: "drop"; ids: number[] }
  | { type: "write"; id: number; most: number }
  | { type: "answer"; ids: number[]; queries: Query[]; scope: Scope; inputs: Record<string, Value> };

/**
 * What it answers; `missing` are ids that it does not hold, since it began anew; `bytes` is null for such an
 * id, and where there would be more than the `most` that were asked for.
 */
export type CellAnswer =
  | { results: (Result | null)[]; missing: number[] }
  | { bytes: Uint8Array | null }
  | { held: number };
