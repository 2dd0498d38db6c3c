import { handle, readJson } from "@/server/http/handle";
import { answerQueries, resultsRequestSchema } from "@/server/results";
import { readProject } from "@/server/store/projects";

export const POST = handle<{ id: string }>(async (request, { id }) => {
  const { queries, draft } = await readJson(request, resultsRequestSchema);
  const { document } = readProject(id);
  return Response.json({ results: await answerQueries(id, draft ?? document, queries, request.signal) });
});
