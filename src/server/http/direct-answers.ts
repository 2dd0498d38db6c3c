import type { IncomingMessage, ServerResponse } from "node:http";
import { Readable } from "node:stream";
import { promisify } from "node:util";
import { gzip } from "node:zlib";
import { answerCellBytes } from "../cells-call";
import { answerResults } from "../results-call";

const CALL = /^\/api\/projects\/([^/?]+)\/(results|cells\/bytes)$/;
const ANSWERS = { results: answerResults, "cells/bytes": answerCellBytes };
type Named = keyof typeof ANSWERS;

/** Shorter answers are no faster packed. */
const WORTH_PACKING = 8000;

const pack = promisify(gzip);

/** The call that an address names, and the id of its project; null where that is no text. */
function callIn(url: string): { id: string; call: Named } | null {
  const found = CALL.exec(url);
  try {
    return found && { id: decodeURIComponent(found[1]), call: found[2] as Named };
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

async function send(
  { id, call }: { id: string; call: Named },
  request: IncomingMessage,
  response: ServerResponse,
): Promise<void> {
  const answer = await ANSWERS[call](webRequest(request, response), { params: Promise.resolve({ id }) });
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
 * Answers what comes with clicks on a board (queries, and the cells that answer them in its page) without the
 * page server between, whose way takes as long as the answer. Gives whether the request is such.
 */
export function answeredDirectly(request: IncomingMessage, response: ServerResponse): boolean {
  const call = request.method === "POST" ? callIn(request.url ?? "") : null;
  if (call === null) return false;
  send(call, request, response).catch((error) => {
    // Who asked may be gone.
    if (!response.destroyed) console.error(error);
    response.destroy();
  });
  return true;
}
