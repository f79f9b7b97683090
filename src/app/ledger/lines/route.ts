import { database } from "@/server/db/database";
import { mayRead } from "@/core/people/mayRead";
import { whoReads } from "@/core/words/en/reading";
import { ledgerLines } from "@/server/ledger/ledgerLines";
import { dayOf } from "@/server/lists/lists";
import { currentPerson } from "@/server/people/session";
import { now_ms } from "@/server/runtime/clock";

/** The whole ledger as lines of JSON, sent as fast as it is read. */
export async function GET(): Promise<Response> {
  const person = await currentPerson();
  if (person === null) return new Response("Sign in first.", { status: 401 });
  if (!mayRead("whole record as a file", person)) {
    return new Response(whoReads("whole record as a file"), { status: 403 });
  }
  const lines = ledgerLines(database(), now_ms());
  const text = new TextEncoder();
  const stream = new ReadableStream<Uint8Array>({
    // One piece at a time, when the reader asks: whoever acts meanwhile is answered in between.
    pull(controller) {
      const next = lines.next();
      if (next.done) controller.close();
      else controller.enqueue(text.encode(next.value));
    },
  });
  return new Response(stream, {
    headers: {
      "content-type": "application/jsonl; charset=utf-8",
      "content-disposition": `attachment; filename="ledger-${dayOf(now_ms())}.jsonl"`,
      "cache-control": "no-store",
    },
  });
}
