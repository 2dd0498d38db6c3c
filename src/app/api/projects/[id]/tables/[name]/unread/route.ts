import { sameName } from "@/core/base/names";
import { compute } from "@/server/compute/client";
import { HttpError } from "@/server/http/errors";
import { handle, readJson } from "@/server/http/handle";
import { unreadBody } from "@/server/http/request-schemas";
import { findTable } from "@/server/tables";

/** How many filled cells of a column another reading could not read, asked before the reading is changed. */
export const POST = handle<{ id: string; name: string }>(async (request, { id, name }) => {
  const { column, reading } = await readJson(request, unreadBody);
  const table = findTable(id, name);
  const at = table.columns.findIndex((c) => sameName(c.name, column));
  if (at < 0)
    throw new HttpError(404, "no_column", `The table ${table.name} has no column “${column}” in its file.`);
  return Response.json(await compute({ type: "unread", table, column: at, reading }, id, request.signal));
});
