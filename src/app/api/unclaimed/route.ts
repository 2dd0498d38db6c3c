import { handle, readJson } from "@/server/http/handle";
import { unclaimedBody } from "@/server/http/request-schemas";
import { reclaimGroup, removeGroup } from "@/server/keep/reclaim";

/** Brings tables that no project names back as a project, or removes them for good. */
export const POST = handle(async (request) => {
  const { project, action } = await readJson(request, unclaimedBody);
  if (action === "bring back") return Response.json({ project: reclaimGroup(project) }, { status: 201 });
  removeGroup(project);
  return new Response(null, { status: 204 });
});
