import type { Calendar } from "../../base/calendar";
import type { CellData, ColumnData, TextData } from "../../data/column";
import { columnRange, rememberCounting, rememberSameRange } from "../../data/column-range";
import { inArray, isNone, noneOf, type Stored } from "../../data/stored";
import { type Expr, visitOwn } from "../../formula/expr";
import type { ColumnPlace } from "../../formula/meeting";
import type { Aggregate } from "../../plan/aggregates";
import { QueryError } from "../../plan/query-error";
import type { ScanSource } from "../scan-source";
import type { SourceColumn } from "../source-column";

/** Beyond this span the values of a column are not put in order. */
const MOST_SPAN = 1 << 22;

/**
 * The rows of a table in the order of one of its columns, null last. `starts[i]` is the place of the first row
 * with the i-th of its distinct values; after the last value stands the number of rows.
 */
export interface RowOrder {
  /** The distinct values in their order, null among them where a row has none. */
  values: ColumnData;
  starts: Int32Array;
  /** For each row of the table its own place in the order, and that of its value. */
  to: Int32Array;
  places: Int32Array;
}

/** Others are asked for whenever the number of a row ends in these bits; loops over rows call nothing else. */
const NOW_AND_THEN = (1 << 16) - 1;

/** The order of the rows by a column; null where its values are texts, or spread too far, or there are none. */
export function rowOrder(data: ColumnData, boss: { checkStop: () => void }): RowOrder | null {
  if (data.type === "text") return null;
  const { within } = columnRange(data);
  if (!within || within.span > MOST_SPAN) return null;
  const { none } = data;
  const stored = inArray(data.values);
  const size = stored.length;
  // The last one counts null.
  const counts = new Int32Array(within.span + 1);
  const at = (i: number) => (isNone(stored[i], none) ? within.span : stored[i] - within.low);
  for (let i = 0; i < size; i++) {
    if ((i & NOW_AND_THEN) === 0) boss.checkStop();
    counts[at(i)]++;
  }
  const placeOf = new Int32Array(within.span + 1);
  const met: number[] = [];
  const starts: number[] = [0];
  for (let v = 0; v <= within.span; v++) {
    if (counts[v] === 0) continue;
    placeOf[v] = met.length;
    met.push(v === within.span ? none : v + within.low);
    starts.push((starts.at(-1) as number) + counts[v]);
  }
  const places = new Int32Array(size);
  const next = Int32Array.from(starts);
  const to = new Int32Array(size);
  for (let i = 0; i < size; i++) {
    if ((i & NOW_AND_THEN) === 0) boss.checkStop();
    places[i] = placeOf[at(i)];
    to[i] = next[places[i]]++;
  }
  const values = new (stored.constructor as Float64ArrayConstructor)(met) as Stored;
  return { values: { ...data, values } as CellData, starts: Int32Array.from(starts), to, places };
}

/**
 * Stretches of an order's values that hold about as many rows each: of each the place of its first value, and
 * at the end the number of values. At most `most`; as many as there are values where they are not more.
 */
export function binsOf({ starts }: RowOrder, most: number): Int32Array {
  const values = starts.length - 1;
  if (values <= most) return Int32Array.from(starts, (_, i) => i);
  const each = starts[values] / most;
  const firsts = [0];
  for (let v = 1; v < values; v++) if (starts[v] >= each * firsts.length) firsts.push(v);
  return Int32Array.from([...firsts, values]);
}

/** A column of as many whole numbers from 0 on, which are still to be written. */
function countingColumn(rows: number, span: number) {
  const values = span <= 2 ** 15 ? new Int16Array(rows) : new Int32Array(rows);
  const data = { type: "number", values, none: noneOf(values), scale: 1 } satisfies CellData;
  rememberCounting(data, span);
  return data;
}

/** For each row the bin of its value, as a column. */
export function binColumn({ places }: RowOrder, bins: Int32Array) {
  const binOf = new Int32Array(bins[bins.length - 1]);
  for (let b = 0; b + 1 < bins.length; b++) binOf.fill(b, bins[b], bins[b + 1]);
  const data = countingColumn(places.length, bins.length - 1);
  const { values } = data;
  for (let i = 0; i < places.length; i++) values[i] = binOf[places[i]];
  return data;
}

/** The same for the rows in their order. */
export function orderedBins({ starts, to }: RowOrder, bins: Int32Array) {
  const data = countingColumn(to.length, bins.length - 1);
  for (let b = 0; b + 1 < bins.length; b++) data.values.fill(b, starts[bins[b]], starts[bins[b + 1]]);
  return data;
}

/** The columns that aggregates read. */
export function columnsRead(aggregates: Iterable<Aggregate>): ColumnPlace[] {
  const found: ColumnPlace[] = [];
  const visit = (expr: Expr | null) => {
    if (expr)
      visitOwn(expr, (e) => {
        if (e.op === "column") found.push({ table: e.table, column: e.column });
      });
  };
  for (const { arg, by, filter } of aggregates) for (const part of [arg, by, filter]) visit(part);
  return found;
}

const nameOf = ({ table, column }: ColumnPlace) => JSON.stringify([table, column]).toLowerCase();

/** Some columns of a table, its rows in another order: what the edges of bins are scanned in. */
export class OrderedRows implements ScanSource {
  readonly crew = undefined;
  /** All rows at once: what is gathered here is put together exactly in whatever order it comes. */
  readonly chunk = Number.MAX_SAFE_INTEGER;

  constructor(
    readonly table: { name: string; rows: number },
    readonly calendar: Calendar | undefined,
    /** By the name of each. */
    readonly columns: Map<string, SourceColumn>,
  ) {}

  checkStop(): void {}
  alone(): OrderedRows {
    return this;
  }
  column(table: string, column: string): SourceColumn {
    const found = this.columns.get(nameOf({ table, column }));
    if (!found) throw new QueryError("unknown_column", `${table}.${column} is not among these.`);
    return found;
  }
  /** Adds a column of the source whose rows these are, in this order. */
  take(place: ColumnPlace, source: ScanSource, { to }: RowOrder): void {
    const name = nameOf(place);
    if (this.columns.has(name)) return;
    const { data, rows } = source.column(place.table, place.column);
    this.columns.set(name, { data: inOrder(data, to, source), rows: rows && moved(rows, to, source) });
  }
}

function inOrder(data: ColumnData, to: Int32Array, source: ScanSource): ColumnData {
  const found: ColumnData =
    data.type === "text"
      ? { ...data, codes: moved(data.codes, to, source) as TextData["codes"] }
      : { ...data, values: moved(inArray(data.values), to, source) };
  rememberSameRange(found, data);
  return found;
}

/**
 * Each cell in the place that its row goes to. Cells are read one after the other and written to as
 * many places as there are values, which stay near the processor: read from everywhere instead, each
 * waited for memory.
 */
function moved<T extends Stored>(cells: T, to: Int32Array, source: ScanSource): T {
  const out = new (cells.constructor as Float64ArrayConstructor)(cells.length);
  for (let i = 0; i < cells.length; i++) {
    if ((i & NOW_AND_THEN) === 0) source.checkStop();
    out[to[i]] = cells[i];
  }
  return out as T;
}

/** The place under which a source has the bins of a column. */
export const binPlace = ({ table, column }: ColumnPlace, bins: Int32Array): ColumnPlace => ({
  table,
  column: `\u0000${bins.length - 1} bins of ${column}`,
});

/** A source that has bins of some columns besides, by their name. */
export class WithBins implements ScanSource {
  readonly crew = undefined;
  private readonly bins = new Map<string, CellData>();
  constructor(
    private readonly source: ScanSource,
    /** Asked whether the work is to end. */
    private readonly boss: Pick<ScanSource, "checkStop">,
  ) {}
  get table() {
    return this.source.table;
  }
  get calendar() {
    return this.source.calendar;
  }
  get chunk() {
    return this.source.chunk;
  }
  checkStop(): void {
    this.boss.checkStop();
  }
  alone(): WithBins {
    return this;
  }
  add(place: ColumnPlace, make: () => CellData): void {
    const name = nameOf(place);
    if (!this.bins.has(name)) this.bins.set(name, make());
  }
  column(table: string, column: string): SourceColumn {
    const data = this.bins.get(nameOf({ table, column }));
    return data ? { data, rows: null } : this.source.column(table, column);
  }
}
