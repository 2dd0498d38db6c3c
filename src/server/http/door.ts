import type { IncomingMessage } from "node:http";

const LOCAL = new Set(["127.0.0.1", "localhost", "[::1]"]);
const METHODS = ["GET", "HEAD", "POST", "PUT", "DELETE"];
const hostname = (host: string) => host.replace(/:\d+$/, "").toLowerCase();

/** Why a request is turned away, with its status. */
export interface Refusal {
  status: number;
  code: string;
  message: string;
  headers?: Record<string, string>;
}

/** How often a header stands in a request as it came. */
const timesOf = (rawHeaders: string[], name: string) =>
  rawHeaders.filter((text, i) => i % 2 === 0 && text.toLowerCase() === name).length;

/**
 * Why a request is turned away at the door, or null. The Host must stand once and be one that this server is
 * meant to have, so that a foreign page cannot reach it under a name of its own; a change must come from the
 * same origin, by what the browser says of both; the method and the address must be sound.
 */
export function refusal(
  request: Pick<IncomingMessage, "headers" | "method" | "url" | "rawHeaders">,
  listening: string,
): Refusal | null {
  const method = request.method ?? "GET";
  if (!METHODS.includes(method))
    return {
      status: 405,
      code: "bad_method",
      message: `The method ${method.slice(0, 20)} is not answered here.`,
      headers: { allow: METHODS.join(", ") },
    };
  const host = request.headers.host ?? "";
  if (timesOf(request.rawHeaders, "host") > 1)
    return { status: 400, code: "bad_host", message: "A request has one Host header." };
  if (!LOCAL.has(hostname(host)) && hostname(host) !== listening.toLowerCase())
    return { status: 403, code: "bad_host", message: "This server answers only under its own address." };
  if (method !== "GET" && method !== "HEAD") {
    const { origin } = request.headers;
    const site = request.headers["sec-fetch-site"];
    let from = host;
    try {
      if (origin !== undefined) from = new URL(origin).host;
    } catch {
      // "null" and anything else that is no address counts as foreign.
      from = "";
    }
    if (from !== host || (site !== undefined && site !== "same-origin" && site !== "none"))
      return { status: 403, code: "bad_origin", message: "Changes are taken only from Cavlo's own pages." };
  }
  try {
    decodeURIComponent((request.url ?? "/").split("?")[0]);
  } catch {
    return { status: 400, code: "bad_address", message: "The address is not a valid one." };
  }
  return null;
}
