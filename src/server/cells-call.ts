import { HttpError } from "./http/errors";
import { handle, readJson } from "./http/handle";
import { cellBytes, cellsRequestSchema } from "./results";
import { checkProject, readProject } from "./store/projects";

/**
 * Answers with the cells of a board, once they are gathered; without any for its page (204), it goes on
 * asking the server.
 */
export const answerCellBytes = handle<{ id: string }>(async (request, { id }) => {
  const { draft, ...asked } = await readJson(request, cellsRequestSchema);
  if (draft) checkProject(id);
  const bytes = await cellBytes(id, draft ?? readProject(id).document, asked).catch((error: unknown) => {
    // The board asks otherwise meanwhile.
    if (error instanceof HttpError && error.code === "cancelled") return null;
    throw error;
  });
  if (!bytes) return new Response(null, { status: 204 });
  return new Response(new Uint8Array(bytes), { headers: { "content-type": "application/octet-stream" } });
});
