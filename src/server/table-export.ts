import type { ResultColumn } from "@/core/plan/query";
import { scopeOf } from "@/core/project/names";
import type { Project, TableInfo } from "@/core/project/schema";
import { type TableFormat, tableFileWriter } from "@/render/table/table-file";
import { XLSX_ROWS } from "@/render/table/xlsx";
import { compute } from "./compute/client";
import type { ShownRows } from "./compute/protocol";
import { HttpError } from "./http/errors";

const PAGE = 4000;

/** A file of a table: in which format, and which of its rows and columns. */
export interface TableFileWish extends ShownRows {
  format: TableFormat;
}

/**
 * A table with its derived columns as a file, written as its rows come from the compute worker. Throws 422
 * where a workbook cannot hold it.
 */
export function writeTable(
  projectId: string,
  project: Project,
  table: TableInfo,
  { format, filters, visible }: TableFileWish,
  signal?: AbortSignal,
): ReadableStream<Uint8Array> {
  if (format === "xlsx" && filters.length === 0 && table.rows + 1 > XLSX_ROWS)
    throw new HttpError(
      422,
      "too_many_rows",
      `A workbook holds at most ${XLSX_ROWS.toLocaleString("en")} rows, and ${table.name} has ${table.rows.toLocaleString("en")}. Take it as CSV.`,
    );
  const question = { tables: project.tables, scope: scopeOf(project), table: table.name };
  const page = async (offset: number, limit: number): Promise<ResultColumn[]> => {
    const wish = { offset, limit, filters, visible };
    const answer = await compute({ type: "values", ...wish, ...question }, projectId, signal);
    return "values" in answer ? answer.values : [];
  };
  async function* parts(): AsyncGenerator<Uint8Array> {
    const writer = tableFileWriter(format, await page(0, 0));
    yield writer.head();
    for (let offset = 0; offset < table.rows; offset += PAGE) {
      const columns = await page(offset, PAGE);
      if ((columns[0]?.values.length ?? 0) === 0) break;
      yield writer.rows(columns.map((c) => c.values));
    }
    yield writer.end();
  }
  const source = parts();
  return new ReadableStream<Uint8Array>({
    async pull(controller) {
      const { value, done } = await source.next();
      if (done) controller.close();
      else controller.enqueue(value);
    },
    cancel: () => void source.return(undefined),
  });
}
