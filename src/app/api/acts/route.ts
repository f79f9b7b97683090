import { runAct } from "@/server/acts/runAct";
import type { ActAnswer } from "@/server/acts/answer";
import { now_ms } from "@/server/runtime/clock";
import { log } from "@/server/runtime/log";
import { PAGE_HEADER } from "@/ui/act/pageName";
import { isOwnOrigin, readAtMost } from "@/server/runtime/http";
import { currentPerson } from "@/server/people/session";

const MOST_BYTES = 256 * 1024;

/** Every act of every user comes in here, as versioned JSON with a client act id. */
export async function POST(request: Request): Promise<Response> {
  if (!isOwnOrigin(request)) return refuse(403, "The act came from another site and was not done.");
  const body = await readAtMost(request, MOST_BYTES);
  if (body === null) return refuse(413, "The act is larger than 256 KB and was not read.");
  let envelope: unknown;
  try {
    envelope = JSON.parse(body.toString("utf8"));
  } catch {
    return refuse(400, "The act is not JSON.");
  }
  const from_ms = performance.now();
  const page = request.headers.get(PAGE_HEADER)?.slice(0, 64) ?? null;
  const person = await currentPerson();
  const spent = { signing_ms: 0 };
  const answer = await runAct(envelope, person, now_ms(), undefined, undefined, page, spent);
  const type = (envelope as Readonly<{ type?: unknown }> | null)?.type;
  const took_ms = Math.round(performance.now() - from_ms);
  const signing_ms = Math.round(spent.signing_ms);
  log().info(
    {
      act: String(type).slice(0, 40),
      by: person?.id ?? null,
      code: answer.ok ? "done" : answer.code,
      took_ms,
      signing_ms,
    },
    "act",
  );
  return Response.json(answer, { status: answer.ok ? 200 : answer.status });
}

function refuse(status: number, sentence: string): Response {
  return Response.json(
    { ok: false, status, code: "bad request", sentence } satisfies Record<keyof ActAnswer | string, unknown>,
    {
      status,
    },
  );
}
