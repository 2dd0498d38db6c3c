import { handle, readJson } from "./http/handle";
import { answerQueries, resultsRequestSchema } from "./results";
import { checkProject, readProject } from "./store/projects";

/** Answers queries over a project, with what its editor has not saved yet. */
export const answerResults = handle<{ id: string }>(async (request, { id }) => {
  const { queries, draft } = await readJson(request, resultsRequestSchema);
  // What an editor sends of its own needs nothing of what is saved.
  if (draft) checkProject(id);
  return Response.json({
    results: await answerQueries(id, draft ?? readProject(id).document, queries, request.signal),
  });
});
