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
function pagePolicy(dev: boolean): string {
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
const DATA_POLICY = "default-src 'none'; frame-ancestors 'none'";

/** Where pictures stand as SVG, of a visual and of a board. */
const PICTURE = /^\/api\/projects\/[^/?]+\/(visuals\/[^/?]+\.svg|picture)(\?|$)/;

/** A picture that is opened by its own address still has its styles, and the fonts and pictures that it carries. */
const PICTURE_POLICY = `${DATA_POLICY}; style-src 'unsafe-inline'; font-src data:; img-src data:`;

/** Where a page stands that shows elements as in a page of somebody's, in a frame of the application. */
const PREVIEW = /^\/p\/[^/?]+\/hand-off\/preview(\?|$)/;

/** A page of somebody's has such a policy at its strictest; its own styles and uploaded pictures need a little more. */
const PREVIEW_HEADERS: Record<string, string> = {
  "content-security-policy":
    "default-src 'self'; img-src 'self' data:; style-src 'self' 'unsafe-inline'; frame-ancestors 'self'",
  "x-frame-options": "SAMEORIGIN",
};

/** The headers of an answer that depend on its address, by what of it is a page and may be framed. */
export function headersFor(address: string, dev: boolean): Record<string, string> {
  if (PREVIEW.test(address)) return PREVIEW_HEADERS;
  if (PICTURE.test(address)) return { "content-security-policy": PICTURE_POLICY };
  return { "content-security-policy": address.startsWith("/api/") ? DATA_POLICY : pagePolicy(dev) };
}
