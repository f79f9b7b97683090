import { database } from "@/server/db/database";
import { ledgerHead } from "@/server/ledger/append";
import { renderPdf } from "@/server/paper/pdf";
import { tagSheet } from "@/server/paper/tagSheet";
import { jobView } from "@/server/queries/jobView";
import { currentPerson } from "@/server/session";

export async function GET(request: Request, { params }: { params: Promise<{ number: string }> }): Promise<Response> {
  if ((await currentPerson()) === null) return new Response("Sign in first.", { status: 401 });
  const { number } = await params;
  const now_ms = Date.now();
  const view = jobView(number, now_ms);
  if (!view?.isolation) return new Response(`Job ${number} has no isolation yet.`, { status: 404 });
  const page = new URL(`/jobs/${number}/walk`, `http://${request.headers.get("host") ?? "localhost"}`);
  const pdf = await renderPdf(await tagSheet(view, page.href, ledgerHead(database()), now_ms));
  return new Response(new Uint8Array(pdf), {
    headers: { "content-type": "application/pdf", "content-disposition": `inline; filename="tags-${number}.pdf"` },
  });
}
