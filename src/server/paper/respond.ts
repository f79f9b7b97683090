import "server-only";
import { now_ms } from "../runtime/clock";
import { database } from "../db/database";
import { ledgerHead } from "../ledger/append";
import type { LedgerHead } from "../ledger/headFile";
import { currentPerson } from "../people/session";
import type { Paper } from "../../workers/renderPdf";
import { siteOrigin } from "../runtime/http";
import { heavy } from "../runtime/workers";

/** A paper as a response, for those who are signed in; null from `make` says that there is nothing to print. */
export async function paperResponse(
  request: Request,
  page: string,
  name: string,
  make: (p: { url: string; head: LedgerHead; now_ms: number }) => Promise<Paper | null>,
): Promise<Response> {
  if ((await currentPerson()) === null) return new Response("Sign in first.", { status: 401 });
  const { href } = new URL(page, siteOrigin(request));
  const paper = await make({ url: href, head: ledgerHead(database()), now_ms: now_ms() });
  if (paper === null) return new Response("There is nothing to print here yet.", { status: 404 });
  return new Response(new Uint8Array(await heavy("paper", paper)), {
    headers: { "content-type": "application/pdf", "content-disposition": `inline; filename="${name}.pdf"` },
  });
}
