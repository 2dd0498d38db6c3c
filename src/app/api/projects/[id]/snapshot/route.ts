import { handle, readQuery } from "@/server/http/handle";
import { answerSnapshot, snapshotAddress } from "@/server/snapshots/answer-snapshot";

export const GET = handle<{ id: string }>((request, { id }) =>
  answerSnapshot(id, readQuery(request, snapshotAddress), request.signal),
);
