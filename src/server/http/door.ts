import type { IncomingMessage } from "node:http";

const LOCAL = new Set(["127.0.0.1", "localhost", "[::1]"]);
const hostname = (host: string) => host.replace(/:\d+$/, "").toLowerCase();

/**
 * Why a request is turned away at the door, or null. The Host must be one that this server is meant to have, so that a
 * foreign page cannot reach it under a name of its own; a change must come from the same origin; the address must be sound.
 */
export function refusal(request: Pick<IncomingMessage, "headers" | "method" | "url">, listening: string): { status: number; code: string; message: string } | null {
  const host = request.headers.host ?? "";
  if (!LOCAL.has(hostname(host)) && hostname(host) !== listening.toLowerCase())
    return { status: 403, code: "bad_host", message: "This server answers only under its own address." };
  const { origin } = request.headers;
  if (origin !== undefined && request.method !== "GET" && request.method !== "HEAD") {
    let from = "";
    try {
      from = new URL(origin).host;
    } catch {
      // "null" and anything else that is no address counts as foreign.
    }
    if (from !== host) return { status: 403, code: "bad_origin", message: "Changes are taken only from Cavlo's own pages." };
  }
  try {
    decodeURIComponent((request.url ?? "/").split("?")[0]);
  } catch {
    return { status: 400, code: "bad_address", message: "The address is not a valid one." };
  }
  return null;
}
