import { handle, readJson } from "@/server/http/handle";
import { answerQueries, resultsRequestSchema } from "@/server/results";
import { checkProject, readProject } from "@/server/store/projects";

export const POST = handle<{ id: string }>(async (request, { id }) => {
  const { queries, draft } = await readJson(request, resultsRequestSchema);
  // What an editor sends of its own needs nothing of what is saved.
  if (draft) checkProject(id);
  return Response.json({
    results: await answerQueries(id, draft ?? readProject(id).document, queries, request.signal),
  });
});
