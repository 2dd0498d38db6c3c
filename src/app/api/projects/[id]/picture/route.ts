import { answerBoardPicture, pictureQuerySchema } from "@/server/board-picture";
import { handle, readQuery } from "@/server/http/handle";

export const GET = handle<{ id: string }>((request, { id }) => {
  const { theme } = readQuery(request, pictureQuerySchema);
  return answerBoardPicture(id, theme, request.headers.get("if-none-match"), request.signal);
});
