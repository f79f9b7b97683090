import { z } from "zod";
import { isTestClock, moveClock, now_ms } from "@/server/runtime/clock";
import { announce } from "@/server/runtime/events";
import { noticeClock } from "@/server/permit/clockWatch";
import { settleAll } from "@/server/permit/settlePermits";

/** Moves the server's clock, for browser tests that last hours. There is no such page unless the environment says so. */
export async function POST(request: Request): Promise<Response> {
  if (!isTestClock()) return new Response("Not found", { status: 404 });
  const asked = z.object({ offset_ms: z.number().int(), set_ms: z.number().int().default(0) });
  const { offset_ms, set_ms } = asked.parse(await request.json());
  moveClock(offset_ms, set_ms);
  noticeClock();
  const moved = settleAll(now_ms());
  // What the clock is to look at next was worked out by the clock as it was.
  announce({ kind: "permit", subject: "", about: [] });
  return Response.json({ moved });
}
