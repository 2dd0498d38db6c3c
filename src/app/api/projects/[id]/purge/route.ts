import { handle } from "@/server/http/handle";
import { purgeDeleted } from "@/server/store/projects";

export const POST = handle<{ id: string }>((_request, { id }) => {
  purgeDeleted(id);
  return new Response(null, { status: 204 });
});
