import { z } from "zod";
import { handle, readJson } from "@/server/http/handle";
import { reclaimGroup, removeGroup } from "@/server/keep/reclaim";

const requestSchema = z.object({ project: z.string().max(40), action: z.enum(["bring back", "remove"]) });

/** Brings tables that no project names back as a project, or removes them for good. */
export const POST = handle(async (request) => {
  const { project, action } = await readJson(request, requestSchema);
  if (action === "bring back") return Response.json({ project: reclaimGroup(project) }, { status: 201 });
  removeGroup(project);
  return new Response(null, { status: 204 });
});
