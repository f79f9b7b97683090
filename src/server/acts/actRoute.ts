import "server-only";
import { z } from "zod";
import { asking, isByToken } from "../access/asking";
import { now_ms } from "../runtime/clock";
import { isOwnOrigin, readAtMost } from "../runtime/http";
import { log } from "../runtime/log";
import type { ActAnswer } from "./answer";
import { runAct } from "./runAct";

const MOST_BYTES = 256 * 1024;

/** The header by which a page says which it is. */
type Page = string | null;

/**
 * An act that comes over HTTP, from a page of ours or from a program by its token. `type` where the address names it; else the
 * body does.
 */
export async function answerAct(request: Request, page: Page, type?: string): Promise<Response> {
  if (!isByToken(request) && !isOwnOrigin(request)) {
    return refuse(403, "bad request", "The act came from another site and was not done.");
  }
  const body = await readAtMost(request, MOST_BYTES);
  if (body === null) return refuse(413, "bad request", "The act is larger than 256 KB and was not read.");
  let sent: unknown;
  try {
    sent = JSON.parse(body.toString("utf8"));
  } catch {
    return refuse(400, "bad request", "The act is not JSON.");
  }
  if (type !== undefined) {
    if (!isObject(sent)) return refuse(400, "bad request", "The act is not an object.");
    sent = { ...sent, version: 1, type };
  }
  const from_ms = performance.now();
  const asker = await asking(request);
  const access = asker?.access ?? null;
  const act = named.safeParse(sent).data?.type;
  if (access !== null && !(act !== undefined && access.acts.includes(act))) {
    return refuse(
      403,
      "not for this token",
      `${access.number} is not for this act: ${access.acts.join(", ") || "it only reads"}.`,
    );
  }
  const spent = { signing_ms: 0 };
  const answer = await runAct(sent, asker?.person ?? null, now_ms(), undefined, undefined, page, spent, access?.number);
  const took_ms = Math.round(performance.now() - from_ms);
  const signing_ms = Math.round(spent.signing_ms);
  log().info(
    {
      act: String(act).slice(0, 40),
      by: asker?.person.id ?? null,
      ...(access === null ? {} : { via: access.number }),
      code: answer.ok ? "done" : answer.code,
      took_ms,
      signing_ms,
    },
    "act",
  );
  return Response.json(answer, { status: answer.ok ? 200 : answer.status });
}

const isObject = (value: unknown): value is object =>
  typeof value === "object" && value !== null && !Array.isArray(value) && !("round" in value);

/** One act, and no round: a program does one thing at a time. */
const named = z.object({ type: z.string(), round: z.undefined().optional() });

function refuse(status: 400 | 403 | 413, code: string, sentence: string): Response {
  return Response.json({ ok: false, status, code, sentence } satisfies Record<keyof ActAnswer | string, unknown>, {
    status,
  });
}
