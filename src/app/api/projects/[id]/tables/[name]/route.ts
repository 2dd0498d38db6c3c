import { scopeOf } from "@/core/project/names";
import { compute } from "@/server/compute/client";
import { handle } from "@/server/http/handle";
import { readProject } from "@/server/store/projects";
import { findTable } from "@/server/tables";

export const GET = handle<{ id: string; name: string }>(async (request, { id, name }) => {
  const table = findTable(id, name);
  const { document } = readProject(id);
  const answer = await compute(
    { type: "profile", table: table.name, tables: document.tables, scope: scopeOf(document) },
    id,
    request.signal,
  );
  return Response.json({ table, ...answer });
});
