import { scopeOf } from "@/core/project/names";
import { compute } from "@/server/compute/client";
import { handle, readQuery } from "@/server/http/handle";
import { rowsAddress } from "@/server/http/request-schemas";
import { readProject } from "@/server/store/projects";
import { findTable } from "@/server/tables";

export const GET = handle<{ id: string; name: string }>(async (request, { id, name }) => {
  const { offset, limit, sort, order, find, filters, visible } = readQuery(request, rowsAddress);
  const table = findTable(id, name);
  const { document } = readProject(id);
  const wish = { offset, limit, sort: sort ? { column: sort, order } : null, find, filters, visible };
  const answer = await compute(
    { type: "rows", table: table.name, ...wish, tables: document.tables, scope: scopeOf(document) },
    id,
    request.signal,
  );
  return Response.json(answer);
});
