import { answerVisual } from "@/server/visual-file";
import { handle } from "@/server/http/handle";

export const GET = handle<{ id: string; file: string }>((request, { id, file }) => answerVisual(id, file, new URL(request.url).searchParams));
