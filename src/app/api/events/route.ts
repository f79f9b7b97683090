import { database, type Db } from "@/server/db/database";
import { alarmsAfter } from "@/server/ledger/alarms";
import { ledgerHead } from "@/server/ledger/append";
import { sessionToken } from "@/server/people/session";
import { personOfSession } from "@/server/people/signIn";
import { Caster, linesFor } from "@/server/runtime/caster";
import { toldSoFar } from "@/server/runtime/events";
import { log } from "@/server/runtime/log";
import { keepStream } from "@/server/runtime/streams";

export const dynamic = "force-dynamic";

/** A line now and then, so that a dead connection is noticed by both sides. */
const BEAT_MS = 15_000;

/** One for the process: all screens are told by it. */
const holder = globalThis as { heavyLanternCaster?: Caster };
const caster = (db: Db) =>
  (holder.heavyLanternCaster ??= new Caster(
    { alarmsAfter: (seq) => alarmsAfter(db, seq), head: () => ledgerHead(db).seq },
    (error) => log().error({ err: error }, "a screen was not told"),
  ));

/**
 * Tells an open screen that something changed, as server-sent events. It says what, never the content. Each event carries
 * the number of the ledger's last row: a screen that comes back, after a break of the network (`Last-Event-ID`) or because
 * it was hidden (`since`), is told first of every alarm after the row it knows.
 */
export async function GET(request: Request): Promise<Response> {
  const db = database();
  const token = await sessionToken();
  const isOpen = () => personOfSession(db, token, Date.now(), false) !== null;
  if (token === undefined || !isOpen()) return new Response("Sign in first.", { status: 401 });
  const text = new TextEncoder();
  const head = ledgerHead(db).seq;
  // A number beyond the ledger is of another database: nothing of this one was heard.
  const known = Math.min(head, knownTo(request) ?? head);
  let end = () => {};
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      const send = (bytes: Uint8Array) => controller.enqueue(bytes);
      send(linesFor(alarmsAfter(db, known), [{ kind: "open", told: toldSoFar() }], head));
      const stop = caster(db).join({ heard: head, send });
      // Whoever signed out, or was signed out, hears no more.
      const beat = setInterval(() => (isOpen() ? controller.enqueue(text.encode(": still here\n\n")) : end()), BEAT_MS);
      const letGo = keepStream(token, () => end());
      end = () => {
        end = () => {};
        clearInterval(beat);
        stop();
        letGo();
        try {
          controller.close();
        } catch {
          // The other side closed it first.
        }
      };
      request.signal.addEventListener("abort", () => end());
    },
    cancel: () => end(),
  });
  return new Response(stream, {
    headers: { "content-type": "text/event-stream", "cache-control": "no-store", "x-accel-buffering": "no" },
  });
}

/** The ledger's row that the screen says it heard of last; null for one that has heard nothing yet. */
function knownTo(request: Request): number | null {
  const said = request.headers.get("last-event-id") ?? new URL(request.url).searchParams.get("since");
  return said !== null && /^\d{1,15}$/.test(said) ? Number(said) : null;
}
