import { z } from "zod";
import { filterSchema } from "@/core/plan/query";
import { scopeOf } from "@/core/project/names";
import { compute } from "@/server/compute/client";
import { handle, readQuery } from "@/server/http/handle";
import { readProject } from "@/server/store/projects";
import { findTable } from "@/server/tables";

const querySchema = z.object({
  offset: z.coerce.number().int().min(0).default(0),
  limit: z.coerce.number().int().min(1).max(500).default(100),
  sort: z.string().max(200).optional(),
  order: z.enum(["asc", "desc"]).default("asc"),
  find: z.string().max(200).default(""),
  /** Filters as JSON. */
  filters: z
    .string()
    .max(20_000)
    .default("[]")
    .transform((text, context) => {
      try {
        return JSON.parse(text) as unknown;
      } catch {
        context.addIssue("The filters are not valid JSON.");
        return z.NEVER;
      }
    })
    .pipe(z.array(filterSchema).max(20)),
});

export const GET = handle<{ id: string; name: string }>(async (request, { id, name }) => {
  const { offset, limit, sort, order, find, filters } = readQuery(request, querySchema);
  const table = findTable(id, name);
  const { document } = readProject(id);
  const wish = { offset, limit, sort: sort ? { column: sort, order } : null, find, filters };
  const answer = await compute(
    { type: "rows", table: table.name, ...wish, tables: document.tables, scope: scopeOf(document) },
    id,
    request.signal,
  );
  return Response.json(answer);
});
