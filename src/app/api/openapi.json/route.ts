import { asking } from "@/server/access/asking";
import { openApi } from "@/server/acts/openApi";
import { siteOrigin } from "@/server/runtime/http";

/** What programs may ask and do here. Says nothing of the site, and is for its people all the same. */
export async function GET(request: Request): Promise<Response> {
  if ((await asking(request)) === null) return new Response("Sign in first.", { status: 401 });
  return Response.json(openApi(siteOrigin(request)), { headers: { "cache-control": "no-store" } });
}
