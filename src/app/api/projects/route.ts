import { createFromRequest } from "@/server/create-project";
import { handle } from "@/server/http/handle";
import { unclaimedGroups } from "@/server/keep/reclaim";
import { deletedProjects, listProjects } from "@/server/store/projects";

export const dynamic = "force-dynamic";

export const GET = handle(() =>
  Response.json({ projects: listProjects(), deleted: deletedProjects(), unclaimed: unclaimedGroups() }),
);
export const POST = handle(createFromRequest);
