import { database } from "@/server/db/database";
import { ledgerHead } from "@/server/ledger/append";
import { permitPaper } from "@/server/paper/permitPaper";
import { renderPdf } from "@/server/paper/pdf";
import { permitView } from "@/server/queries/board";
import { currentPerson } from "@/server/session";

export async function GET(request: Request, { params }: { params: Promise<{ number: string }> }): Promise<Response> {
  if ((await currentPerson()) === null) return new Response("Sign in first.", { status: 401 });
  const { number } = await params;
  const now_ms = Date.now();
  const permit = permitView(number, now_ms);
  if (permit === null) return new Response(`There is no permit ${number}.`, { status: 404 });
  const page = new URL(`/permits/${number}`, `http://${request.headers.get("host") ?? "localhost"}`);
  const pdf = await renderPdf(await permitPaper(permit, ledgerHead(database()), page.href, now_ms));
  return new Response(new Uint8Array(pdf), {
    headers: { "content-type": "application/pdf", "content-disposition": `inline; filename="permit-${number}.pdf"` },
  });
}
