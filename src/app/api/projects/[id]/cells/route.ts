import { HttpError } from "@/server/http/errors";
import { handle, readJson } from "@/server/http/handle";
import { cellsRequestSchema, prepareCells } from "@/server/results";
import { readProject } from "@/server/store/projects";

/** Nobody waits for cells: the answer says only that they are being gathered. */
export const POST = handle<{ id: string }>(async (request, { id }) => {
  const { draft, ...asked } = await readJson(request, cellsRequestSchema);
  const { document } = readProject(id);
  prepareCells(id, draft ?? document, asked).catch((error: unknown) => {
    if (error instanceof HttpError && error.code === "cancelled") return;
    // Without them every answer is a scan, as before.
    console.warn(`Cells for a board were not gathered: ${error instanceof Error ? error.message : error}`);
  });
  return Response.json({ ok: true }, { status: 202 });
});
