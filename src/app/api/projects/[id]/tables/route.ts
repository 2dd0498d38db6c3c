import { bodyOf, handle, readQuery } from "@/server/http/handle";
import { importAddress } from "@/server/http/request-schemas";
import { addTable, needRoom } from "@/server/import/add-table";
import { answerImport } from "@/server/import/answer-import";
import { importTable } from "@/server/import/import-table";
import { readProject } from "@/server/store/projects";

export const POST = handle<{ id: string }>((request, { id }) => {
  const { name, add, ...options } = readQuery(request, importAddress);
  readProject(id);
  if (add) needRoom(id);
  return answerImport(request, async (follower) => {
    const imported = await importTable(id, { file: name, body: bodyOf(request) }, options, follower);
    return add ? addTable(id, imported) : imported;
  });
});
