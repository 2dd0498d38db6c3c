import { bodyOf, handle, readQuery } from "@/server/http/handle";
import { importAddress } from "@/server/http/request-schemas";
import { answerImport } from "@/server/import/answer-import";
import { importTable } from "@/server/import/import-table";
import { readProject } from "@/server/store/projects";

export const POST = handle<{ id: string }>((request, { id }) => {
  const { name, ...options } = readQuery(request, importAddress);
  readProject(id);
  return answerImport(request, (follower) =>
    importTable(id, { file: name, body: bodyOf(request) }, options, follower),
  );
});
