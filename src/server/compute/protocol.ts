import type { Column } from "@/core/data/column";
import type { Profile } from "@/core/data/profile";
import type { Query, Result } from "@/core/engine/query";
import type { Scope } from "@/core/formula/expr";
import type { Value } from "@/core/formula/value";
import type { TableInfo } from "@/core/project/schema";

/** A question to the compute worker. Tables are named with the readings of their columns. */
export type ComputeRequest =
  | { type: "results"; tables: TableInfo[]; scope: Scope; inputs: Record<string, Value>; queries: Query[] }
  | { type: "profile"; table: TableInfo }
  | { type: "rows"; table: TableInfo; offset: number; limit: number; sort: { column: string; order: "asc" | "desc" } | null; find: string };

export type QueryAnswer = Result | { error: { code: string; message: string; at?: { start: number; end: number } } };

export interface TableProfile {
  rows: number;
  columns: (Profile & { name: string; type: Column["data"]["type"]; unread: number; firstUnread: { row: number; text: string } | null })[];
}

export interface RowsPage {
  total: number;
  rows: { number: number; cells: (string | null)[]; unread: number[] }[];
}

export type ComputeAnswer = { results: QueryAnswer[] } | { profile: TableProfile } | { page: RowsPage };
