import { handle, readJson } from "@/server/http/handle";
import { restoreBody } from "@/server/http/request-schemas";
import { restoreRevision } from "@/server/store/projects";

export const POST = handle<{ id: string }>(async (request, { id }) => {
  const { revision } = await readJson(request, restoreBody);
  return Response.json({ project: restoreRevision(id, revision) });
});
