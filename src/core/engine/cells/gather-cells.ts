import type { Value } from "../../base/value";
import type { ColumnPlace } from "../../formula/meeting";
import { QueryError } from "../../plan/query-error";
import { attempt } from "../attempt";
import type { Gathered } from "../gathered";
import { scanTable } from "../scan";
import type { ScanSource } from "../scan-source";
import type { TableSource } from "../table-source";
import type { Edges } from "./cells";
import type { Wanted } from "./plan-cells";
import {
  binColumn,
  binPlace,
  columnsRead,
  OrderedRows,
  orderedBins,
  type RowOrder,
  WithBins,
} from "./row-order";

const isBinned = ({ range, order }: Wanted) =>
  range !== null && order !== null && range.bins.length < order.starts.length;

/**
 * Scans for groupings of one table, in one pass for the rows as they stand and one for each order; one that
 * cannot be gathered is left out. Where the edges of bins need the rows in the order of a column, what has
 * that range key is scanned in it too: rows of a bin then meet few groups, which stay near the processor.
 */
export class CellScan {
  private readonly ordered = new Map<RowOrder, Edges>();
  readonly found: (Gathered | null)[];

  constructor(
    private readonly source: TableSource,
    wanted: Wanted[],
    today: Value,
    most: number,
  ) {
    for (const { order } of wanted.filter(isBinned))
      if (order) this.ordered.set(order, this.inOrder(order, wanted));
    this.found = new Array(wanted.length).fill(null);
    for (const order of [null, ...this.ordered.keys()]) {
      const own = wanted.filter((w) => (w.order && this.ordered.has(w.order) ? w.order : null) === order);
      if (own.length === 0) continue;
      for (const [i, gathered] of this.scan(own, order, today, most).entries())
        this.found[wanted.indexOf(own[i])] = gathered;
    }
  }

  /** From where the edges of a grouping's bins are told; null where they need no telling. */
  edges(wanted: Wanted): Edges | null {
    return (isBinned(wanted) && wanted.order && this.ordered.get(wanted.order)) || null;
  }

  /** The rows in an order, with all columns that groupings with that range key read. */
  private inOrder(order: RowOrder, wanted: Wanted[]): Edges {
    const { source } = this;
    const { name, rows } = source.table;
    const made = new OrderedRows({ name, rows }, source.calendar, new Map());
    for (const { filters, keys, aggregates } of wanted.filter((w) => w.order === order)) {
      const read: ColumnPlace[] = [...filters, ...keys].map((k) => k.place);
      for (const place of [...read, ...columnsRead(aggregates.values())]) made.take(place, source, order);
    }
    return { starts: order.starts, rows: made };
  }

  private scan(wanted: Wanted[], order: RowOrder | null, today: Value, most: number): (Gathered | null)[] {
    const rows: ScanSource = (order && this.ordered.get(order)?.rows) ?? this.source;
    const binned = new WithBins(rows, this.source);
    const selections = wanted.map(({ filters, keys, range, order: own, aggregates }) => {
      const splits = [...keys];
      if (range && own) {
        const place = binPlace(range.key.place, range.bins);
        binned.add(place, () => (order ? orderedBins(own, range.bins) : binColumn(own, range.bins)));
        splits.push({ place, by: undefined });
      }
      return { filters, groupings: [{ splits, aggregates: [...aggregates.values()], most }] };
    });
    const together = attempt(() => scanTable(binned, selections, today));
    if (!(together instanceof QueryError)) return together;
    if (together.code !== "too_many_groups") throw together;
    return selections.map((s) => {
      const alone = attempt(() => scanTable(binned, [s], today)[0]);
      if (alone instanceof QueryError && alone.code !== "too_many_groups") throw alone;
      return alone instanceof QueryError ? null : alone;
    });
  }
}
