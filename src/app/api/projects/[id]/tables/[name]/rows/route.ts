import { z } from "zod";
import { scopeOf } from "@/core/project/names";
import { compute } from "@/server/compute/client";
import { filtersInAddress, visibleInAddress } from "@/server/http/filters-in-address";
import { handle, readQuery } from "@/server/http/handle";
import { readProject } from "@/server/store/projects";
import { findTable } from "@/server/tables";

const querySchema = z.object({
  offset: z.coerce.number().int().min(0).default(0),
  limit: z.coerce.number().int().min(1).max(500).default(100),
  sort: z.string().max(200).optional(),
  order: z.enum(["asc", "desc"]).default("asc"),
  find: z.string().max(200).default(""),
  filters: filtersInAddress,
  visible: visibleInAddress,
});

export const GET = handle<{ id: string; name: string }>(async (request, { id, name }) => {
  const { offset, limit, sort, order, find, filters, visible } = readQuery(request, querySchema);
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
