import { handle, readJson } from "@/server/http/handle";
import { turnBody } from "@/server/http/request-schemas";
import { answerImport } from "@/server/import/answer-import";
import { turnColumns } from "@/server/import/turn-columns";
import { findTable } from "@/server/tables";

export const POST = handle<{ id: string; name: string }>(async (request, { id, name }) => {
  const turn = await readJson(request, turnBody);
  const table = findTable(id, name);
  return answerImport(request, (follower) => turnColumns(id, table, turn, follower));
});
