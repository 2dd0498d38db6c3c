import { rmSync } from "node:fs";
import { nanoid } from "nanoid";
import { z } from "zod";
import { emptyProject, type Project } from "@/core/project/schema";
import { createDemo, createWithTables } from "./demo";
import { bodyOf, parseJson, schemaProblem } from "./http/handle";
import type { StoredTable } from "./import/job";
import { runJob } from "./import/run-job";
import { spool } from "./import/spool";
import { createProject } from "./store/projects";
import { tableFiles } from "./store/table-files";

const orderSchema = z.union([
  z.strictObject({ demo: z.literal(true) }),
  z.strictObject({ name: z.string().trim().min(1, "A project needs a name.").max(120) }),
]);
/** What a project is made of: an order, or a project file, which is checked while it is read. */
export const newProjectBody = z.union([
  orderSchema,
  z.object({ document: z.unknown(), rows: z.record(z.string(), z.array(z.array(z.unknown()))).optional() }),
]);
const SMALL = 2000;

/**
 * Makes a project: `{ "name": … }` an empty one, `{ "demo": true }` the demo, anything longer a project file.
 * The body goes to disk first, since a project file can be large.
 */
export async function createFromRequest(request: Request): Promise<Response> {
  const files = tableFiles(nanoid(16));
  try {
    const head = await spool(bodyOf(request), files.upload, SMALL);
    if (head !== null) {
      const value = parseJson(Buffer.from(head));
      if (!(typeof value === "object" && value !== null && "document" in value)) {
        const order = orderSchema.safeParse(value);
        if (!order.success) throw schemaProblem(order.error);
        const project =
          "demo" in order.data ? await createDemo() : createProject(emptyProject(order.data.name));
        return Response.json({ project }, { status: 201 });
      }
    }
    const { document, tables } = await runJob<{ document: Project; tables: StoredTable[] }>(
      { type: "project", path: files.upload },
      { progress: () => {}, signal: request.signal },
    );
    return Response.json({ project: createWithTables(document, tables) }, { status: 201 });
  } finally {
    rmSync(files.upload, { force: true });
  }
}
