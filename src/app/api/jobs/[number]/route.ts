import { asking, opens } from "@/server/access/asking";
import { jobJson } from "@/server/access/jobJson";
import { mayTakeOut } from "@/server/lists/lists";
import { now_ms } from "@/server/runtime/clock";

const refuse = (status: number, code: string, sentence: string) =>
  Response.json({ ok: false, status, code, sentence }, { status, headers: { "cache-control": "no-store" } });

/** A job with its steps, for programs. */
export async function GET(request: Request, { params }: { params: Promise<{ number: string }> }): Promise<Response> {
  const asker = await asking(request);
  if (asker === null) return refuse(401, "signed out", "Sign in first, or send a token that counts.");
  if (!opens(asker, "jobs")) return refuse(403, "not for this token", "This token opens no jobs.");
  if (!mayTakeOut("jobs", asker.person)) {
    return refuse(403, "not yours to do", "Jobs are taken out of the site by the site's own people only.");
  }
  const { number } = await params;
  const found = jobJson(number, now_ms());
  return found === null
    ? refuse(404, "unknown", `There is no job ${number}.`)
    : Response.json(found, { headers: { "cache-control": "no-store" } });
}
