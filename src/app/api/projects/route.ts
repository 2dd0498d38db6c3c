import { createFromRequest } from "@/server/create-project";
import { handle } from "@/server/http/handle";
import { listProjects } from "@/server/store/projects";

export const dynamic = "force-dynamic";

export const GET = handle(() => Response.json({ projects: listProjects() }));
export const POST = handle(createFromRequest);
