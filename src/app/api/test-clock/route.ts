import { z } from "zod";
import { isTestClock, moveClock, now_ms } from "@/server/runtime/clock";
import { settleAll } from "@/server/permit/settlePermits";

/** Moves the server's clock, for browser tests that last hours. There is no such page unless the environment says so. */
export async function POST(request: Request): Promise<Response> {
  if (!isTestClock()) return new Response("Not found", { status: 404 });
  const { offset_ms } = z.object({ offset_ms: z.number().int() }).parse(await request.json());
  moveClock(offset_ms);
  return Response.json({ moved: settleAll(now_ms()) });
}
