import { z } from "zod";
import { handle, readJson } from "@/server/http/handle";
import { restoreRevision } from "@/server/store/projects";

export const POST = handle<{ id: string }>(async (request, { id }) => {
  const { revision } = await readJson(request, z.object({ revision: z.int().min(1) }));
  return Response.json({ project: restoreRevision(id, revision) });
});
