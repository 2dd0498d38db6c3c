import { handle } from "@/server/http/handle";
import { undeleteProject } from "@/server/store/projects";

export const POST = handle<{ id: string }>((_request, { id }) =>
  Response.json({ project: undeleteProject(id) }),
);
