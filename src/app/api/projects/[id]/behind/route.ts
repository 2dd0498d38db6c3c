import { z } from "zod";
import { querySchema } from "@/core/plan/query";
import { handle, readJson } from "@/server/http/handle";
import { answerBehind, draftSchema } from "@/server/results";
import { checkProject, readProject } from "@/server/store/projects";

const requestSchema = z.object({ query: querySchema, draft: draftSchema.optional() });

export const POST = handle<{ id: string }>(async (request, { id }) => {
  const { query, draft } = await readJson(request, requestSchema);
  if (draft) checkProject(id);
  return Response.json({
    behind: await answerBehind(id, draft ?? readProject(id).document, query, request.signal),
  });
});
