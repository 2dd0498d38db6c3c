import { handle } from "@/server/http/handle";
import { openApiDocument } from "@/server/http/openapi";

export const GET = handle(() => Response.json(openApiDocument()));
