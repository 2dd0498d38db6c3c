import { boardCells } from "@/server/cells/board-cells";
import { computeState } from "@/server/compute/client";
import { SCHEMA_VERSION } from "@/server/store/database";
import packageJson from "../../../../package.json";

export const dynamic = "force-dynamic";

export function GET(): Response {
  return Response.json({
    ok: true,
    version: packageJson.version,
    schema: SCHEMA_VERSION,
    compute: computeState(),
    cells: boardCells().state(),
  });
}
