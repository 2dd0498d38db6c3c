import { bodyOf, handle, readQuery } from "@/server/http/handle";
import { appendAddress } from "@/server/http/request-schemas";
import { answerImport } from "@/server/import/answer-import";
import { appendRows } from "@/server/import/import-table";
import { findTable } from "@/server/tables";

export const POST = handle<{ id: string; name: string }>((request, { id, name }) => {
  const { name: file } = readQuery(request, appendAddress);
  const table = findTable(id, name);
  return answerImport(request, (follower) =>
    appendRows(id, table, { file, body: bodyOf(request) }, follower),
  );
});
