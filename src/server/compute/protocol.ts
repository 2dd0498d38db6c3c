import type { Value } from "@/core/base/value";
import type { Column } from "@/core/data/column";
import type { Profile } from "@/core/data/profile";
import type { Reading } from "@/core/data/reading-schema";
import type { PlainIndex } from "@/core/engine/cells/plain-index";
import type { CellLimits, CellsAsked, Touched } from "@/core/engine/cells/plan-cells";
import type { LinkFacts } from "@/core/engine/link-facts";
import type { Behind } from "@/core/engine/rows-behind";
import type { Scope } from "@/core/formula/expr";
import type { Link } from "@/core/formula/links";
import type { ColumnPlace } from "@/core/formula/meeting";
import type { Filter, Query, Result, ResultColumn } from "@/core/plan/query";
import type { TableInfo } from "@/core/project/schema";
import type { Limit } from "@/core/snapshot/limits";
import type { SharedColumn } from "../store/shared-column";

/**
 * What a question about one table comes with: all tables and the scope, since derived columns may use others
 * through links.
 */
interface TableQuestion {
  tables: TableInfo[];
  scope: Scope;
}

/** A question to the compute worker. Tables are named with the readings of their columns. */
export type ComputeRequest =
  | { type: "results"; tables: TableInfo[]; scope: Scope; inputs: Record<string, Value>; queries: Query[] }
  | {
      type: "cells";
      tables: TableInfo[];
      scope: Scope;
      inputs: Record<string, Value>;
      asked: CellsAsked;
      limits: CellLimits;
    }
  /** An index that can leave, with what it does not tell of the queries: see `travellingIndex`. */
  | ({
      type: "index";
      inputs: Record<string, Value>;
      asked: { of: string; query: Query }[];
      touched: Touched[];
      now: Filter[];
      limits: CellLimits;
    } & TableQuestion)
  /** The cells of some columns as bytes of `toBytes`, which hold a list of `TravellingTable`. */
  | ({ type: "columns"; columns: ColumnPlace[] } & TableQuestion)
  | ({ type: "profile"; table: string } & TableQuestion)
  | ({ type: "links"; links: Link[] } & TableQuestion)
  | { type: "unread"; table: TableInfo; column: number; reading: Reading }
  | { type: "behind"; tables: TableInfo[]; scope: Scope; inputs: Record<string, Value>; query: Query }
  | ({ type: "values"; table: string; offset: number; limit: number } & ShownRows & TableQuestion)
  | ({
      type: "rows";
      table: string;
      offset: number;
      limit: number;
      sort: { column: string; order: "asc" | "desc" } | null;
      find: string;
    } & ShownRows &
      TableQuestion);

/** Which rows of a table are shown, and whether without its hidden columns. */
export interface ShownRows {
  filters: Filter[];
  visible: boolean;
}

/** Columns in shared memory that a thread is given with a question, and those that it loaded itself. */
export type GivenColumns = { table: string; key: string; column: SharedColumn }[];
/** The columns that a thread loaded itself, told so that others need not. */
export type LoadedColumns = GivenColumns;

/** A query's result, or what is wrong with it and where. */
export type QueryAnswer =
  | Result
  | { error: { code: string; message: string; at?: { start: number; end: number } } };

/** What the columns of a table hold. */
export interface TableProfile {
  rows: number;
  columns: (Profile & {
    name: string;
    type: Column["data"]["type"];
    derived: boolean;
    unread: number;
    unreadCells: { row: number; text: string }[];
  })[];
}

/** Some of a table's rows, and how many there are. */
export interface RowsPage {
  total: number;
  /** The names of the columns, in the order of the cells. */
  columns: string[];
  rows: { number: number; cells: (string | null)[]; unread: number[] }[];
}

/** Cells of a column that another reading could not read. */
export interface UnreadCells {
  unread: number;
  unreadCells: { row: number; text: string }[];
}

/** How the links of a project hold, and links that could be added. */
export interface LinkAnswer {
  links: LinkFacts[];
  proposed: LinkFacts[];
}

/** An index that travels, as bytes, with what is to be known of it. */
export interface TravellingIndex {
  index: Uint8Array;
  count: { cells: number; ofOneRow: number };
  /** What tells its sums apart, with how many values each has at most. */
  keys: { name: string; values: number }[];
  /** A filter that a page could ask for, by the name that it gives it. */
  example: Record<string, Value[]>;
  /** What it does not tell. */
  limits: Limit[];
}

/** What a compute thread answers, by what it was asked. */
export type ComputeAnswer =
  | { results: QueryAnswer[] }
  | { profile: TableProfile }
  | { page: RowsPage }
  | { links: LinkAnswer }
  | { values: ResultColumn[] }
  | { behind: Behind }
  | { cells: PlainIndex; bytes: number }
  | { columns: Uint8Array }
  | TravellingIndex
  | UnreadCells;
