import { z } from "zod";
import { compute } from "@/server/compute/client";
import { handle, readQuery } from "@/server/http/handle";
import { findTable } from "@/server/tables";

const querySchema = z.object({
  offset: z.coerce.number().int().min(0).default(0),
  limit: z.coerce.number().int().min(1).max(500).default(100),
  sort: z.string().max(200).optional(),
  order: z.enum(["asc", "desc"]).default("asc"),
  find: z.string().max(200).default(""),
});

export const GET = handle<{ id: string; name: string }>(async (request, { id, name }) => {
  const { offset, limit, sort, order, find } = readQuery(request, querySchema);
  const table = findTable(id, name);
  const answer = await compute({ type: "rows", table, offset, limit, sort: sort ? { column: sort, order } : null, find });
  return Response.json(answer);
});
