import { bytesIn } from "../../data/bytes-in";
import type { ColumnType } from "../../data/column";
import type { PlacedSplit } from "../../plan/plan";
import { type Catalog, sourcesOf } from "../run";
import type { TableSource } from "../table-source";
import type { CellIndex } from "./cell-answer";
import { type Cells, cellsOf } from "./cells";
import { CellScan } from "./gather-cells";
import { type CellLimits, type CellsAsked, scannedFor, type Wanted, wantedCells } from "./plan-cells";
import { RollUp } from "./roll-up";

const USUAL: CellLimits = { cells: 1_000_000, bytes: 300_000_000 };

/** The type of a key: a timestamp in stretches is a date. */
function keyType(source: TableSource, { place, by }: PlacedSplit): ColumnType {
  const { type } = source.column(place.table, place.column).data;
  return type === "timestamp" && by ? "date" : type;
}

/**
 * Gathers cells from which the queries of a board are answered whatever is filtered by the touched columns:
 * by all of them at once where these are few enough cells, else by each with the others as they are now.
 * Queries of which an aggregate depends on the order of rows have none, nor those that would need too many
 * cells. Throws a QueryError where it is stopped.
 */
export function buildCells(asked: CellsAsked, catalog: Catalog, limits = USUAL): CellIndex {
  const sources = sourcesOf(catalog);
  const { wanted, facts, isSettled } = wantedCells(asked, sources, catalog.inputs, limits);
  const cells: Cells[] = [];
  const bySource = new Map<TableSource, Wanted[]>();
  for (const w of wanted) bySource.set(w.source, [...(bySource.get(w.source) ?? []), w]);
  for (const [source, all] of bySource) {
    const scanned = scannedFor(all);
    const finest = scanned.map((s) => s.wanted);
    const scan = new CellScan(source, finest, sources.today, limits.cells);
    for (const [i, found] of scan.found.entries()) {
      if (!found) continue;
      const { wanted: fine, from } = scanned[i];
      const typesOf = (keys: PlacedSplit[]) => keys.map((key) => keyType(source, key));
      const rollUp = new RollUp(found, fine, typesOf(fine.keys), source);
      for (const one of from) {
        const { filters, keys, aggregates } = one;
        const range = one.range && { ...one.range, edges: scan.edges(one) };
        const own = rollUp.to(one, new Set(aggregates.keys()));
        cells.push(
          cellsOf({ table: source.table.name, filters, keys, range }, typesOf(keys), aggregates, own),
        );
      }
    }
  }
  const seen = new Set<unknown>();
  let bytes = 0;
  const within = cells
    .sort((a, b) => effort(a) - effort(b))
    .filter((one) => {
      bytes += bytesIn(one, seen);
      return bytes <= limits.bytes;
    });
  return { cells: within, facts, today: sources.today, isSettled };
}

/** About how much there is to look at: the lines, and what stands at the edges of bins. */
const effort = ({ starts, range }: Cells): number =>
  starts.length + (range?.edges ? range.edges.rows.table.rows / range.bins.length : 0);
