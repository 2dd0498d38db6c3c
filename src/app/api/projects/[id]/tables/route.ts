import { z } from "zod";
import { bodyOf, handle, readQuery } from "@/server/http/handle";
import { answerImport } from "@/server/import/answer-import";
import { importTable } from "@/server/import/import-table";
import { importOptionsSchema } from "@/server/import/reader";
import { readProject } from "@/server/store/projects";

const querySchema = importOptionsSchema.extend({
  name: z.string().min(1, "Say the file's name: ?name=….").max(300),
});

export const POST = handle<{ id: string }>((request, { id }) => {
  const { name, ...options } = readQuery(request, querySchema);
  readProject(id);
  return answerImport(request, (follower) =>
    importTable(id, { file: name, body: bodyOf(request) }, options, follower),
  );
});
