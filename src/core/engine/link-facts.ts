import { sameName } from "../base/names";
import { type Column, type ColumnData, cellsOf, cellValue, type Table } from "../data/column";
import { type Link, linksProblem } from "../formula/links";
import { QueryError } from "../plan/query-error";
import { matchRows } from "./table-source";

/** How well a link holds over the rows there are. `problem` says why it cannot hold at all. */
export interface LinkFacts {
  link: Link;
  /** Rows of the many side that have a value in the column, and how many of them find their key. */
  filled: number;
  matched: number;
  /** A few values that find no key. */
  missing: string[];
  problem: string | null;
}

const SHOWN_MISSING = 5;
const LEAST_SHARE = 0.5;
const MOST_PROPOSED = 12;

/** Measures a link over the columns of its two ends. */
export function factsOf(
  link: Link,
  from: ColumnData,
  key: ColumnData,
  write: (row: number) => string,
): LinkFacts {
  const facts: LinkFacts = { link, filled: 0, matched: 0, missing: [], problem: null };
  try {
    const rows = matchRows(from, key, link);
    const seen = new Set<string>();
    for (let row = 0; row < rows.length; row++) {
      if (cellValue(from, row) === null) continue;
      facts.filled++;
      if (rows[row] >= 0) facts.matched++;
      else if (seen.size < SHOWN_MISSING) seen.add(write(row));
    }
    facts.missing = [...seen];
  } catch (error) {
    if (!(error instanceof QueryError)) throw error;
    facts.problem = error.message;
  }
  return facts;
}

/** Whether every row has a value and no value stands twice. */
function isKey(data: ColumnData): boolean {
  if (data.type === "boolean" || data.type === "timestamp") return false;
  const values = cellsOf(data);
  if (values.length < 2) return false;
  const seen = new Set<number>();
  for (let row = 0; row < values.length; row++) {
    if (cellValue(data, row) === null || seen.has(values[row])) return false;
    seen.add(values[row]);
  }
  return true;
}

const plain = (name: string) => name.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, "");
const singular = (name: string) => plain(name).replace(/ies$/, "y").replace(/s$/, "");

/**
 * Whether a column's name says that it means another table's key: the same name, the table's name,
 * or both together.
 */
function namesFit(column: string, table: string, key: string): boolean {
  const wanted = [
    plain(key),
    singular(table),
    singular(table) + plain(key),
    `${singular(table)}id`,
    `${singular(table)}code`,
    `${singular(table)}name`,
    `${singular(table)}key`,
  ];
  const generic = ["id", "key", "code", "name", "date", "month", "week", "year", "day"];
  return wanted.includes(plain(column)) && !(plain(column) === plain(key) && generic.includes(plain(key)));
}

/**
 * Whether a number's or a date's name says that it tells rows apart, and is not a quantity that two tables
 * happen to share.
 */
function namesIdentity(column: string, table: string): boolean {
  return plain(column).includes(singular(table)) || /(id|key|code|no|nr|number)$/.test(plain(column));
}

interface Candidate {
  table: Table;
  column: Column;
}

/** Shares of distinct texts that stand in another dictionary. */
function textShare(from: ColumnData, key: ColumnData): number {
  if (from.type !== "text" || key.type !== "text") return 0;
  const keys = new Set(key.dictionary);
  return from.dictionary.length
    ? from.dictionary.filter((t) => keys.has(t)).length / from.dictionary.length
    : 0;
}

/**
 * Links that names and values speak for and that do not stand yet, the surest first: a key is a column in
 * which every row has a value of its own; a column that means it has a fitting name, or is a text of which
 * most values are keys.
 */
export function proposeLinks(
  tables: Table[],
  existing: Link[],
  write: (column: Column, row: number) => string,
  checkStop: () => void = () => {},
): LinkFacts[] {
  const keys: Candidate[] = tables.flatMap((table) =>
    table.columns.filter((c) => isKey(c.data)).map((column) => ({ table, column })),
  );
  const found: { facts: LinkFacts; fits: boolean }[] = [];
  for (const key of keys) {
    for (const table of tables) {
      if (table === key.table) continue;
      for (const column of table.columns) {
        if (column.data.type !== key.column.data.type) continue;
        checkStop();
        const link: Link = {
          table: table.name,
          column: column.name,
          to: key.table.name,
          key: key.column.name,
        };
        if (
          existing.some((l) => sameName(l.table, link.table) && sameName(l.to, link.to)) ||
          linksProblem([...existing, link])
        )
          continue;
        const fits =
          namesFit(column.name, key.table.name, key.column.name) &&
          (column.data.type === "text" || namesIdentity(column.name, key.table.name));
        // Numbers and dates of any two tables overlap; only their names tell that they mean the same.
        if (!fits && (column.data.type !== "text" || textShare(column.data, key.column.data) < LEAST_SHARE))
          continue;
        const facts = factsOf(link, column.data, key.column.data, (row) => write(column, row));
        if (facts.problem === null && facts.filled > 0 && facts.matched / facts.filled >= LEAST_SHARE)
          found.push({ facts, fits });
      }
    }
  }
  const share = (f: LinkFacts) => f.matched / f.filled;
  found.sort((a, b) => Number(b.fits) - Number(a.fits) || share(b.facts) - share(a.facts));
  // One proposal for each pair of tables, and none that would close a circle with the ones before it.
  const chosen: LinkFacts[] = [];
  for (const { facts } of found) {
    const { link } = facts;
    const taken = chosen.some(
      (c) =>
        (sameName(c.link.table, link.table) && sameName(c.link.to, link.to)) ||
        (sameName(c.link.table, link.to) && sameName(c.link.to, link.table)),
    );
    if (!taken && !linksProblem([...existing, ...chosen.map((c) => c.link), link])) chosen.push(facts);
  }
  return chosen.slice(0, MOST_PROPOSED);
}
