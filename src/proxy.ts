import { randomBytes } from "node:crypto";
import { NextResponse, type NextRequest } from "next/server";

/**
 * What a page may load and run: its own, and of scripts only those that were sent with it, by a word that is made afresh for
 * each page. A text that somebody slips into a page is then text. Styles may stand in elements: drawings are placed by them.
 */
export function proxy(request: NextRequest): NextResponse {
  const nonce = randomBytes(16).toString("base64");
  const policy = [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "connect-src 'self'",
    "worker-src 'self'",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join("; ");
  const headers = new Headers(request.headers);
  headers.set("x-nonce", nonce);
  headers.set("Content-Security-Policy", policy);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set("Content-Security-Policy", policy);
  return response;
}

/** Pages. What is no page has nothing to run. */
export const config = { matcher: ["/((?!api/|_next/static|_next/image|sw.js|icon|fonts).*)"] };
