import type { Calendar } from "../../base/calendar";
import type { Value } from "../../base/value";
import type { Tally } from "../accumulators/accumulator";
import { accumulatorOf, type Gathering } from "../accumulators/accumulator-of";
import type { SourceColumn } from "../source-column";
import type { CellIndex } from "./cell-answer";
import type { Cells, Edges, RangeKey } from "./cells";
import { KeptFacts } from "./kept-facts";
import { OrderedRows } from "./row-order";

/** Rows in the order of a column, as plain data. */
interface PlainEdges {
  starts: Int32Array;
  table: { name: string; rows: number };
  calendar: Calendar | undefined;
  columns: Map<string, SourceColumn>;
}

/** Cells as plain data. */
type PlainCells = Omit<Cells, "range" | "summed" | "others"> & {
  range: (Omit<RangeKey, "edges"> & { edges: PlainEdges | null }) | null;
  summed: [key: string, gathering: Gathering, state: unknown, upTo: Tally[]][];
  others: [key: string, gathering: Gathering, state: unknown][];
};

/** An index of cells as plain data, which can go to another thread or be written to bytes. */
export interface PlainIndex {
  cells: PlainCells[];
  facts: KeptFacts["kept"];
  today: Value;
  isSettled: boolean;
}

/** An index as plain data; what several cells share stays one thing. */
export function plainIndex({ cells, facts, ...rest }: CellIndex): PlainIndex {
  const known = new Map<Edges, PlainEdges>();
  const plainEdges = (edges: Edges): PlainEdges => {
    const { starts, rows } = edges;
    const made = known.get(edges) ?? {
      starts,
      table: rows.table,
      calendar: rows.calendar,
      columns: rows.columns,
    };
    known.set(edges, made);
    return made;
  };
  return {
    cells: cells.map(({ range, summed, others, ...own }) => ({
      ...own,
      range: range && { ...range, edges: range.edges && plainEdges(range.edges) },
      summed: [...summed].map(([key, { gathering, like, upTo }]) => [key, gathering, like.state(), upTo]),
      others: [...others].map(([key, { gathering, accumulator }]) => [key, gathering, accumulator.state()]),
    })),
    facts: facts.kept,
    ...rest,
  };
}

/** The index that plain data stands for. */
export function indexOf({ cells, facts, ...rest }: PlainIndex): CellIndex {
  const known = new Map<PlainEdges, Edges>();
  const edgesOf = (plain: PlainEdges): Edges => {
    const { starts, table, calendar, columns } = plain;
    const made = known.get(plain) ?? { starts, rows: new OrderedRows(table, calendar, columns) };
    known.set(plain, made);
    return made;
  };
  const holding = (gathering: Gathering, state: unknown, groups: number) => {
    const accumulator = accumulatorOf(gathering);
    accumulator.absorb(
      state,
      Int32Array.from({ length: groups }, (_, g) => g),
      groups,
    );
    return accumulator;
  };
  return {
    cells: cells.map(({ range, summed, others, ...own }) => ({
      ...own,
      range: range && { ...range, edges: range.edges && edgesOf(range.edges) },
      summed: new Map(
        summed.map(([key, gathering, state, upTo]) => [
          key,
          { gathering, like: holding(gathering, state, 1), upTo },
        ]),
      ),
      others: new Map(
        others.map(([key, gathering, state]) => [
          key,
          { gathering, accumulator: holding(gathering, state, own.rowsUpTo.length - 1) },
        ]),
      ),
    })),
    facts: new KeptFacts(facts),
    ...rest,
  };
}
