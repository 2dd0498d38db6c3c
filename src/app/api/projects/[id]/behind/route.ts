import { handle, readJson } from "@/server/http/handle";
import { behindBody } from "@/server/http/request-schemas";
import { answerBehind } from "@/server/results";
import { checkProject, readProject } from "@/server/store/projects";

export const POST = handle<{ id: string }>(async (request, { id }) => {
  const { query, draft } = await readJson(request, behindBody);
  if (draft) checkProject(id);
  return Response.json({
    behind: await answerBehind(id, draft ?? readProject(id).document, query, request.signal),
  });
});
