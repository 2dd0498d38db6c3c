import { cutText } from "@/core/base/cut-text";
import { sameName } from "@/core/base/names";
import { readingKey } from "@/core/data/reading-label";
import { LONGEST } from "@/core/project/most";
import type { TableInfo } from "@/core/project/schema";
import { turnProblem } from "@/core/project/turned-columns";
import { HttpError } from "../http/errors";
import { openSoundRows } from "../store/sound-rows";
import type { Cell } from "../store/table-files";
import { type ImportedTable, importTable } from "./import-table";
import type { Follower } from "./progress";

/** Which columns are turned into rows, and what the two columns are called that take their place. */
export interface Turn {
  columns: string[];
  /** The column of their names. */
  names: string;
  /** The column of their cells. */
  values: string;
}

/** How much of the work it is to write the rows; the rest is to read them in. */
const WRITTEN = 0.3;
/** So many characters are written at a time. */
const PIECE = 1 << 16;

/** A cell as RFC 4180 has it, always in quotes, so that nothing of it has to be guessed; nothing where empty. */
const quoted = (cell: Cell): string => (cell === null ? "" : `"${cell.replaceAll('"', '""')}"`);

/** The rows of a table as CSV, each as many times as there are turned columns. */
async function* turnedCsv(
  table: TableInfo,
  kept: number[],
  turned: number[],
  { names, values }: Turn,
  { progress, signal }: Follower,
): AsyncGenerator<Uint8Array> {
  const encoder = new TextEncoder();
  const db = openSoundRows(table);
  try {
    const nameOf = (at: number) => quoted(table.columns[at].name);
    const heads = turned.map(nameOf);
    let text = `${[...kept.map(nameOf), quoted(names), quoted(values)].join(",")}\n`;
    let done = 0;
    for (const row of db.prepare("select * from rows order by rowid").raw().iterate()) {
      const cells = row as Cell[];
      done++;
      const own = kept.map((at) => `${quoted(cells[at])},`).join("");
      for (const [k, at] of turned.entries()) text += `${own}${heads[k]},${quoted(cells[at])}\n`;
      if (text.length < PIECE) continue;
      if (signal?.aborted) throw new HttpError(499, "cancelled", "The work was cancelled.");
      progress(done / table.rows);
      yield encoder.encode(text);
      text = "";
    }
    yield encoder.encode(text);
  } finally {
    db.close();
  }
}

/**
 * Makes a new stored table of a table's rows in which some columns are turned into rows: each row stands
 * there once for each of them, with the column's name and its cell. What stays is read as before, and so are
 * the cells where all turned columns are read alike. Throws a 422 HttpError where the columns or names will
 * not do.
 */
export async function turnColumns(
  projectId: string,
  table: TableInfo,
  turn: Turn,
  follower: Follower,
): Promise<ImportedTable> {
  const problem = turnProblem(table, turn);
  if (problem) throw new HttpError(422, "bad_turn", problem);
  const isTurned = (at: number) => turn.columns.some((name) => sameName(name, table.columns[at].name));
  const places = table.columns.map((_, at) => at);
  const turned = places.filter(isTurned);
  const kept = places.filter((at) => !isTurned(at));
  const { signal, progress } = follower;
  const written = { separator: ",", encoding: "utf-8", header: true, above: 0 } as const;
  const name = cutText(`${table.name}_in_rows`, LONGEST.name);
  const body = turnedCsv(table, kept, turned, turn, {
    signal,
    progress: (share) => progress(WRITTEN * share),
  });
  // A name of a file ends where a folder's does; the table has its whole name.
  const file = `${name.replaceAll(/[\\/]/g, "_")}.csv`;
  const made = await importTable(projectId, { file, body }, written, {
    signal,
    progress: (share, rows) => progress(WRITTEN + (1 - WRITTEN) * share, rows),
  });
  const [first, ...others] = turned.map((at) => table.columns[at].reading);
  const isAlike = others.every((reading) => readingKey(reading) === readingKey(first));
  const known = kept.map((at) => table.columns[at]);
  const readings = [...known.map((column) => column.reading), null, isAlike ? first : null];
  return {
    ...made,
    table: {
      ...made.table,
      source: { ...made.table.source, file: cutText(`${table.name}, columns turned into rows`, 300) },
      name,
      columns: made.table.columns.map((column, at) => ({
        ...column,
        name: known[at]?.name ?? column.name,
        reading: readings[at] ?? column.reading,
        hidden: known[at]?.hidden ?? false,
      })),
    },
    doubts: made.doubts.filter(({ column }) => {
      const at = made.table.columns.findIndex((c) => sameName(c.name, column));
      return !readings[at];
    }),
  };
}
