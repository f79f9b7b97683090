import { now_ms } from "@/server/runtime/clock";
import { readAtMost } from "@/server/runtime/http";
import { receive } from "@/server/permit/instruments";

const MOST_BYTES = 8 * 1024;

/** One message of an instrument, with its own token. The protocol is in docs/instruments.md. */
export async function POST(request: Request): Promise<Response> {
  const token = /^Bearer ([\w-]{20,200})$/.exec(request.headers.get("authorization") ?? "")?.[1];
  if (token === undefined) return answer({ ok: false, status: 401, sentence: "Send the instrument's token." });
  const body = await readAtMost(request, MOST_BYTES);
  if (body === null) return answer({ ok: false, status: 400, sentence: "The message is larger than 8 KB." });
  let message: unknown;
  try {
    message = JSON.parse(body.toString("utf8"));
  } catch {
    return answer({ ok: false, status: 400, sentence: "The message is not JSON." });
  }
  return answer(receive(token, message, now_ms()));
}

function answer(said: ReturnType<typeof receive>): Response {
  return Response.json(said, { status: said.ok ? 200 : said.status });
}
