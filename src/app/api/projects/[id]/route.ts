import { HttpError } from "@/server/http/errors";
import { handle, readJson } from "@/server/http/handle";
import { saveBody } from "@/server/http/request-schemas";
import { parseDocument } from "@/server/parse-document";
import { checkTables } from "@/server/results";
import { deleteProject, readProject, saveProject } from "@/server/store/projects";

type Params = { id: string };

export const GET = handle<Params>((_request, { id }) => Response.json({ project: readProject(id) }));

export const PUT = handle<Params>(async (request, { id }) => {
  const { revision, document } = await readJson(request, saveBody);
  const parsed = parseDocument(document);
  if ("problem" in parsed) throw new HttpError(400, "bad_document", parsed.problem);
  readProject(id);
  checkTables(id, parsed.document.tables);
  const outcome = saveProject(id, revision, parsed.document);
  if ("saved" in outcome) return Response.json({ project: outcome.saved });
  throw new HttpError(409, "newer", "This project was changed in another window. Nothing was overwritten.", {
    project: outcome.newer,
  });
});

export const DELETE = handle<Params>((_request, { id }) => {
  deleteProject(id);
  return new Response(null, { status: 204 });
});
