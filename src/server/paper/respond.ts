import "server-only";
import type { TDocumentDefinitions } from "pdfmake/interfaces";
import { now_ms } from "../runtime/clock";
import { database } from "../db/database";
import { ledgerHead, type LedgerHead } from "../ledger/append";
import { currentPerson } from "../people/session";
import { renderPdf } from "./pdf";

/** A paper as a response, for those who are signed in; null from `make` says that there is nothing to print. */
export async function paperResponse(
  request: Request,
  page: string,
  name: string,
  make: (p: { url: string; head: LedgerHead; now_ms: number }) => Promise<TDocumentDefinitions | null>,
): Promise<Response> {
  if ((await currentPerson()) === null) return new Response("Sign in first.", { status: 401 });
  const { href } = new URL(page, `http://${request.headers.get("host") ?? "localhost"}`);
  const document = await make({ url: href, head: ledgerHead(database()), now_ms: now_ms() });
  if (document === null) return new Response("There is nothing to print here yet.", { status: 404 });
  return new Response(new Uint8Array(await renderPdf(document)), {
    headers: { "content-type": "application/pdf", "content-disposition": `inline; filename="${name}.pdf"` },
  });
}
