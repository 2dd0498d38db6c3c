import { handle } from "@/server/http/handle";
import { projectJsonSchema } from "@/server/http/openapi";

export const GET = handle(() => Response.json(projectJsonSchema()));
