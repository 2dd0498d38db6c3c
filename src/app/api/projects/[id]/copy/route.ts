import { copyProject } from "@/server/copy-project";
import { HttpError } from "@/server/http/errors";
import { handle, readJson } from "@/server/http/handle";
import { copyBody } from "@/server/http/request-schemas";
import { parseDocument } from "@/server/parse-document";

export const POST = handle<{ id: string }>(async (request, { id }) => {
  const { document } = await readJson(request, copyBody);
  const parsed = parseDocument(document);
  if ("problem" in parsed) throw new HttpError(400, "bad_document", parsed.problem);
  return Response.json({ project: copyProject(id, parsed.document) }, { status: 201 });
});
