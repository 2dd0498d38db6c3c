import type { IncomingMessage, ServerResponse } from "node:http";
import { Readable } from "node:stream";
import { promisify } from "node:util";
import { gzip } from "node:zlib";
import { answerResults } from "../results-call";

const RESULTS = /^\/api\/projects\/([^/?]+)\/results$/;
/** Shorter answers are no faster packed. */
const WORTH_PACKING = 8000;

const pack = promisify(gzip);

/** The id that an address names; null where it is no text. */
function idIn(url: string): string | null {
  const found = RESULTS.exec(url);
  try {
    return found && decodeURIComponent(found[1]);
  } catch {
    return null;
  }
}

/** A request as route handlers take it; its signal tells when nobody waits any more. */
function webRequest(request: IncomingMessage, response: ServerResponse): Request {
  const gone = new AbortController();
  response.once("close", () => gone.abort());
  const headers = new Headers();
  for (const [name, value] of Object.entries(request.headers))
    for (const one of [value ?? []].flat()) headers.append(name, one);
  return new Request(new URL(request.url ?? "/", "http://localhost"), {
    method: request.method,
    headers,
    body: Readable.toWeb(request) as ReadableStream,
    signal: gone.signal,
    duplex: "half",
  } as RequestInit);
}

async function send(id: string, request: IncomingMessage, response: ServerResponse): Promise<void> {
  const answer = await answerResults(webRequest(request, response), { params: Promise.resolve({ id }) });
  let body = Buffer.from(await answer.arrayBuffer());
  const headers: Record<string, string | number> = Object.fromEntries(answer.headers);
  headers.vary = "Accept-Encoding";
  const accepted = String(request.headers["accept-encoding"] ?? "");
  if (body.length > WORTH_PACKING && /\bgzip\b(?!;\s*q=0(\.0*)?(,|$))/.test(accepted)) {
    body = await pack(body);
    headers["content-encoding"] = "gzip";
  }
  response.writeHead(answer.status, { ...headers, "content-length": body.length });
  response.end(body);
}

/**
 * Answers queries, which come with every click on a board, without the page server between, whose way takes
 * as long as the answer. Gives whether the request is one.
 */
export function answeredDirectly(request: IncomingMessage, response: ServerResponse): boolean {
  const id = request.method === "POST" ? idIn(request.url ?? "") : null;
  if (id === null) return false;
  send(id, request, response).catch((error) => {
    console.error(error);
    response.destroy();
  });
  return true;
}
