import type { Project } from "@/core/project/schema";
import { inStableOrder } from "@/core/project/stable-order";
import { parseDocument } from "../parse-document";
import { openSoundRows } from "../store/sound-rows";
import type { Cell } from "../store/table-files";
import { ImportProblem } from "./import-problem";
import type { StoredTable } from "./job";
import type { Progress } from "./progress";

/** What a project file holds: the document, and the rows of its tables by the table's id, as texts. */
interface ProjectFile {
  document: Project;
  rows: Record<string, Cell[][]>;
}

/** Writes a project with its rows as JSON text, piece by piece: a line for each field, so that files are compared. */
export async function* writeProjectFile(document: Project): AsyncGenerator<string> {
  yield `{"document":${JSON.stringify(inStableOrder(document), null, 1)},"rows":{`;
  for (const [i, table] of document.tables.entries()) {
    yield `${i ? "," : ""}${JSON.stringify(table.id)}:[`;
    const db = openSoundRows(table);
    try {
      let batch: string[] = [];
      let first = true;
      for (const row of db.prepare("select * from rows order by rowid").raw().iterate()) {
        batch.push(JSON.stringify(row));
        if (batch.length < 2000) continue;
        yield `${first ? "" : ","}\n${batch.join(",\n")}`;
        first = false;
        batch = [];
        await new Promise(setImmediate);
      }
      if (batch.length) yield `${first ? "" : ","}\n${batch.join(",\n")}`;
    } finally {
      db.close();
    }
    yield "]";
  }
  yield "}}\n";
}

function checkRows(file: ProjectFile): void {
  for (const table of file.document.tables) {
    const rows = file.rows[table.id];
    if (!Array.isArray(rows))
      throw new ImportProblem(`The project file lacks the rows of the table ${table.name}.`);
    const width = table.columns.length;
    const bad = rows.findIndex(
      (r) => !Array.isArray(r) || r.length !== width || r.some((c) => c !== null && typeof c !== "string"),
    );
    if (bad >= 0)
      throw new ImportProblem(
        `Row ${bad + 1} of the table ${table.name} does not have ${width} texts. The file was changed or cut short.`,
      );
  }
}

/** Rows whose texts can be written: half of a surrogate pair is mended to U+FFFD. */
function* wellFormed(rows: Cell[][]): Generator<Cell[]> {
  for (const row of rows) yield row.map((c) => c?.toWellFormed() ?? null);
}

/**
 * Reads a project file, stores its rows as new tables, and gives the document over them. Throws an
 * ImportProblem where it is broken.
 */
export function readProjectFile(
  bytes: Buffer,
  store: (name: string, columns: string[], rows: Iterable<Cell[]>) => StoredTable,
  progress: Progress,
): { document: Project; tables: StoredTable[] } {
  let value: unknown;
  try {
    value = JSON.parse(bytes.toString("utf8"));
  } catch {
    throw new ImportProblem("This is not a project file: it is not valid JSON. It may have been cut short.");
  }
  progress(0.3);
  const parsed = parseDocument((value as { document?: unknown } | null)?.document);
  if ("problem" in parsed)
    throw new ImportProblem(`This is not a project file that this version can read. ${parsed.problem}`);
  const file = { document: parsed.document, rows: (value as { rows?: ProjectFile["rows"] }).rows ?? {} };
  checkRows(file);
  const tables: StoredTable[] = [];
  const document = {
    ...file.document,
    tables: file.document.tables.map((table, i) => {
      const stored = store(
        table.name,
        table.columns.map((c) => c.name),
        wellFormed(file.rows[table.id]),
      );
      tables.push(stored);
      progress(0.3 + (0.69 * (i + 1)) / file.document.tables.length);
      return { ...table, id: stored.id, rows: stored.rows };
    }),
  };
  return { document, tables };
}
