import { handle } from "@/server/http/handle";
import { answerVisual } from "@/server/visual-file";

export const GET = handle<{ id: string; file: string }>((request, { id, file }) =>
  answerVisual(id, file, new URL(request.url).searchParams, request.signal),
);
