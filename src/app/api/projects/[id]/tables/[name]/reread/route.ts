import { handle, readJson } from "@/server/http/handle";
import { answerImport } from "@/server/import/answer-import";
import { rereadTable } from "@/server/import/import-table";
import { importOptionsSchema } from "@/server/import/reader";
import { findTable } from "@/server/tables";

export const POST = handle<{ id: string; name: string }>(async (request, { id, name }) => {
  const options = await readJson(request, importOptionsSchema);
  const table = findTable(id, name);
  return answerImport(request, (follower) => rereadTable(id, table, options, follower));
});
