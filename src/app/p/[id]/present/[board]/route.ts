import { HttpError } from "@/server/http/errors";
import { handle } from "@/server/http/handle";
import { presentedPage, problemPage } from "@/server/presented-page";

export const GET = handle<{ id: string; board: string }>(async (request, { id, board }) => {
  const policy = request.headers.get("content-security-policy") ?? "";
  const nonce = /'nonce-([^']+)'/.exec(policy)?.[1] ?? "";
  const address = new URL(request.url).searchParams;
  const headers = { "content-type": "text/html; charset=utf-8", "cache-control": "no-store" };
  try {
    return new Response(await presentedPage(id, board, { nonce, address }, request.signal), { headers });
  } catch (error) {
    if (!(error instanceof HttpError)) throw error;
    return new Response(problemPage(error.message, id, nonce), { status: error.status, headers });
  }
});
