import { HttpError } from "@/server/http/errors";
import { handle } from "@/server/http/handle";

const nothing = handle(() => {
  throw new HttpError(
    404,
    "no_call",
    "There is no call at this address. All calls are listed at /api/openapi.json.",
  );
});

/** Says in the form of all answers that nothing stands at an address, however deep it is. */
const answer = (request: Request) => nothing(request, { params: Promise.resolve({}) });

export { answer as DELETE, answer as GET, answer as PATCH, answer as POST, answer as PUT };
