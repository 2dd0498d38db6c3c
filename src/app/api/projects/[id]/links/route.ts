import { scopeOf } from "@/core/project/names";
import { compute } from "@/server/compute/client";
import { handle, readJson } from "@/server/http/handle";
import { linksBody } from "@/server/http/request-schemas";
import { readProject } from "@/server/store/projects";

export const POST = handle<{ id: string }>(async (request, { id }) => {
  const { links } = await readJson(request, linksBody);
  const { document } = readProject(id);
  return Response.json(
    await compute(
      { type: "links", links, tables: document.tables, scope: scopeOf(document) },
      id,
      request.signal,
    ),
  );
});
