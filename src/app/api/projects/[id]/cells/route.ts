import { HttpError } from "@/server/http/errors";
import { handle, readJson } from "@/server/http/handle";
import { cellsRequestSchema, prepareCells } from "@/server/results";
import { checkProject, readProject } from "@/server/store/projects";

/** Nobody waits for cells: the answer says only that they are being gathered. */
export const POST = handle<{ id: string }>(async (request, { id }) => {
  const { draft, ...asked } = await readJson(request, cellsRequestSchema);
  // What an editor sends of its own needs nothing of what is saved.
  if (draft) checkProject(id);
  prepareCells(id, draft ?? readProject(id).document, asked).catch((error: unknown) => {
    if (error instanceof HttpError && error.code === "cancelled") return;
    // Without them every answer is a scan, as before.
    console.warn(`Cells for a board were not gathered: ${error instanceof Error ? error.message : error}`);
  });
  return Response.json({ ok: true }, { status: 202 });
});
