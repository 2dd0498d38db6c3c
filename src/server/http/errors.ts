import { cutText } from "@/core/base/cut-text";

/**
 * An answer that is an error: a status, a code for programs and a sentence for people that says what to do.
 */
export class HttpError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly more: { field?: string; at?: { start: number; end: number } } & Record<string, unknown> = {},
  ) {
    super(message);
  }

  override readonly name = "HttpError";

  /**
   * The entry of the server and its pages are bundled apart, each with a class of this name, and share
   * threads whose errors are of one of them.
   */
  static override [Symbol.hasInstance](value: unknown): boolean {
    return value instanceof Error && value.name === "HttpError" && "status" in value;
  }
}

/**
 * What is said of a fault of Cavlo's own: which it was, and that the log has more. Nothing is claimed that
 * was not checked.
 */
export function internalMessage(error: unknown): string {
  const what =
    error instanceof Error ? cutText(error.message.split("\n")[0], 200) : cutText(String(error), 200);
  return `Cavlo could not answer this because of a fault of its own (${what}). The log of the server has the details.`;
}
