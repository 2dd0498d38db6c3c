import { z } from "zod";
import { scopeOf } from "@/core/project/names";
import { linkSchema } from "@/core/project/schema";
import { compute } from "@/server/compute/client";
import { handle, readJson } from "@/server/http/handle";
import { readProject } from "@/server/store/projects";

const requestSchema = z.object({ links: z.array(linkSchema.omit({ id: true })).max(200) });

export const POST = handle<{ id: string }>(async (request, { id }) => {
  const { links } = await readJson(request, requestSchema);
  const { document } = readProject(id);
  return Response.json(
    await compute(
      { type: "links", links, tables: document.tables, scope: scopeOf(document) },
      id,
      request.signal,
    ),
  );
});
