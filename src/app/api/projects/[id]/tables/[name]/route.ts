import { compute } from "@/server/compute/client";
import { handle } from "@/server/http/handle";
import { findTable } from "@/server/tables";

export const GET = handle<{ id: string; name: string }>(async (_request, { id, name }) => {
  const table = findTable(id, name);
  const answer = await compute({ type: "profile", table });
  return Response.json({ table, ...answer });
});
