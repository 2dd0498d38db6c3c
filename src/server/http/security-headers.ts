import { randomBytes } from "node:crypto";

/** What every answer carries: nothing of it is guessed, framed, or read by another origin. */
export const SECURITY_HEADERS: Record<string, string> = {
  "x-content-type-options": "nosniff",
  "referrer-policy": "no-referrer",
  "x-frame-options": "DENY",
  "cross-origin-resource-policy": "same-origin",
  "cross-origin-opener-policy": "same-origin",
};

/**
 * The Content-Security-Policy of a page: only scripts that carry this answer's nonce run, and those that they
 * fetch from here. Styles may stand in attributes, since positions and colours of pictures are such. While
 * developing, the bundler needs to evaluate.
 */
export function pagePolicy(dev: boolean): string {
  const nonce = randomBytes(16).toString("base64");
  return [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'${dev ? " 'unsafe-eval'" : ""}`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self' data:",
    "connect-src 'self'",
    "worker-src 'self' blob:",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join("; ");
}

/** The policy of an answer that is no page: nothing in it runs or loads. */
export const DATA_POLICY = "default-src 'none'; frame-ancestors 'none'";
