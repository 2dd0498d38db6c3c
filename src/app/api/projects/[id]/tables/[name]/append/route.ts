import { z } from "zod";
import { bodyOf, handle, readQuery } from "@/server/http/handle";
import { answerImport } from "@/server/import/answer-import";
import { appendRows } from "@/server/import/import-table";
import { findTable } from "@/server/tables";

const querySchema = z.object({ name: z.string().min(1, "Say the file's name: ?name=….").max(300) });

export const POST = handle<{ id: string; name: string }>((request, { id, name }) => {
  const { name: file } = readQuery(request, querySchema);
  const table = findTable(id, name);
  return answerImport(request, (follower) =>
    appendRows(id, table, { file, body: bodyOf(request) }, follower),
  );
});
