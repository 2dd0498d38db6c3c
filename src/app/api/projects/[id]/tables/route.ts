import { z } from "zod";
import { handle, readQuery } from "@/server/http/handle";
import { answerImport } from "@/server/import/answer-import";
import { importTable } from "@/server/import/import-table";
import { csvOptionsSchema } from "@/server/import/read-csv";
import { readProject } from "@/server/store/projects";

const querySchema = csvOptionsSchema.extend({ name: z.string().min(1, "Say the file's name: ?name=….").max(300) });

export const POST = handle<{ id: string }>((request, { id }) => {
  const { name, ...options } = readQuery(request, querySchema);
  readProject(id);
  return answerImport(request, (progress, signal) => importTable(id, name, (request.body ?? []) as AsyncIterable<Uint8Array>, options, progress, signal));
});
