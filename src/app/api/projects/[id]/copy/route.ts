import { z } from "zod";
import { documentProblem, projectSchema } from "@/core/project/schema";
import { copyProject } from "@/server/copy-project";
import { HttpError } from "@/server/http/errors";
import { handle, readJson } from "@/server/http/handle";

export const POST = handle<{ id: string }>(async (request, { id }) => {
  const { document } = await readJson(request, z.object({ document: z.unknown() }));
  const parsed = projectSchema.safeParse(document);
  if (!parsed.success) throw new HttpError(400, "bad_document", documentProblem(parsed.error));
  return Response.json({ project: copyProject(id, parsed.data) }, { status: 201 });
});
