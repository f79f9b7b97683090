import "server-only";

/** True when a browser sends this from one of our own pages. A client that is no browser sends no origin. */
export function isOwnOrigin(request: Request): boolean {
  const origin = request.headers.get("origin");
  if (origin === null) return request.headers.get("sec-fetch-site") !== "cross-site";
  try {
    return new URL(origin).origin === siteOrigin(request);
  } catch {
    return false;
  }
}

/**
 * The site's address, for links and the codes on papers: `LANTERN_URL` where it is set, else the one that this was asked at.
 */
export function siteOrigin(request: Request): string {
  return siteOriginOf(request.headers);
}

export function siteOriginOf(headers: Pick<Headers, "get">): string {
  const set = process.env.LANTERN_URL;
  if (set) return new URL(set).origin;
  const scheme = headers.get("x-forwarded-proto") === "https" ? "https" : "http";
  return new URL(`${scheme}://${headers.get("host") ?? "localhost"}`).origin;
}

/** The body's bytes, or null as soon as there are more than `most`: the rest is not read. */
export async function readAtMost(request: Request, most: number): Promise<Buffer | null> {
  if (Number(request.headers.get("content-length") ?? 0) > most) return null;
  const chunks: Uint8Array[] = [];
  let size = 0;
  const reader = request.body?.getReader();
  for (;;) {
    const part = await reader?.read();
    if (part === undefined || part.done) return Buffer.concat(chunks);
    size += part.value.byteLength;
    if (size > most) {
      await reader?.cancel();
      return null;
    }
    chunks.push(part.value);
  }
}
