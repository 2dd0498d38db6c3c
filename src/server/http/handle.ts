import type { z } from "zod";
import { isWellFormedData } from "@/core/base/well-formed";
import { firstIssue } from "@/core/plan/first-issue";
import { QueryError } from "@/core/plan/query-error";
import { faultAnswer, faultOf } from "../store/disk-fault";
import { HttpError, internalMessage } from "./errors";

const JSON_LIMIT = 20_000_000;

function errorResponse(error: unknown): Response {
  if (error instanceof HttpError) {
    const { field, at, ...more } = error.more;
    return Response.json(
      {
        error: {
          code: error.code,
          message: error.message,
          ...(field ? { field } : {}),
          ...(at ? { at } : {}),
        },
        ...more,
      },
      { status: error.status },
    );
  }
  if (error instanceof QueryError)
    return errorResponse(new HttpError(error.code === "damaged" ? 409 : 400, error.code, error.message));
  const fault = faultOf(error);
  if (fault) return errorResponse(faultAnswer(fault));
  console.error(error);
  return Response.json({ error: { code: "internal", message: internalMessage(error) } }, { status: 500 });
}

type Handler<P> = (request: Request, params: P) => Promise<Response> | Response;

/** Wraps a route handler: its errors become answers, and its path parameters are awaited. */
export function handle<P extends Record<string, string>>(handler: Handler<P>) {
  return async (request: Request, context: { params: Promise<P> }): Promise<Response> => {
    try {
      return await handler(request, await context.params);
    } catch (error) {
      // Nobody waits for an answer any more, and it is no fault that what was being sent ended.
      if (request.signal.aborted) return new Response(null, { status: 499 });
      return errorResponse(error);
    }
  };
}

/** A request's body as it comes; nothing where it has none. */
export const bodyOf = (request: Request) => (request.body ?? []) as AsyncIterable<Uint8Array>;

/** Reads a request's body as bytes, up to a limit. */
async function readBytes(request: Request, limit: number): Promise<Uint8Array> {
  const chunks: Uint8Array[] = [];
  let size = 0;
  for await (const chunk of bodyOf(request)) {
    size += chunk.byteLength;
    if (size > limit)
      throw new HttpError(
        413,
        "too_large",
        `The request is larger than ${Math.round(limit / 1e6)} MB. Send less at once.`,
      );
    chunks.push(chunk);
  }
  return Buffer.concat(chunks);
}

/** Says what is wrong in a body by its first problem, with the field's path. */
export function schemaProblem(error: z.ZodError): HttpError {
  const { path, message } = firstIssue(error);
  const field = path.map(String).join(".");
  return new HttpError(400, "bad_request", field ? `${field}: ${message}` : message, { field });
}

/** Half of a surrogate pair can only come into JSON as an escape. */
const MAYBE_HALF = /\\u[dD][89a-fA-F]/;

/** JSON out of bytes. Throws a 400 HttpError where it is none, is too deep, or holds a text that is none. */
export function parseJson(bytes: Uint8Array): unknown {
  let value: unknown;
  let text: string;
  try {
    text = new TextDecoder("utf-8", { fatal: true }).decode(bytes);
    value = JSON.parse(text);
  } catch {
    throw new HttpError(400, "bad_json", "The body is not valid JSON.");
  }
  if (MAYBE_HALF.test(text) && !isWellFormedData(value))
    throw new HttpError(
      400,
      "bad_text",
      "A text in the body holds half of a character (a lone surrogate). Remove it and send the body again.",
    );
  return value;
}

/** Reads and checks a JSON body. */
export async function readJson<T>(request: Request, schema: z.ZodType<T>): Promise<T> {
  const bytes = await readBytes(request, JSON_LIMIT);
  const value = parseJson(bytes);
  const parsed = schema.safeParse(value);
  if (!parsed.success) throw schemaProblem(parsed.error);
  return parsed.data;
}

/** Checks the query part of an address against a schema. */
export function readQuery<T>(request: Request, schema: z.ZodType<T>): T {
  const parsed = schema.safeParse(Object.fromEntries(new URL(request.url).searchParams));
  if (!parsed.success) throw schemaProblem(parsed.error);
  return parsed.data;
}
