import { onHappening } from "@/server/runtime/events";
import { currentPerson } from "@/server/people/session";

export const dynamic = "force-dynamic";

/** A line now and then, so that a dead connection is noticed by both sides. */
const BEAT_MS = 15_000;

/** Tells an open screen that something changed, as server-sent events. It says what, never the content. */
export async function GET(request: Request): Promise<Response> {
  if ((await currentPerson()) === null) return new Response("Sign in first.", { status: 401 });
  const text = new TextEncoder();
  let end = () => {};
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      const send = (line: string) => controller.enqueue(text.encode(line));
      const stop = onHappening((happening) => send(`data: ${JSON.stringify(happening)}\n\n`));
      const beat = setInterval(() => send(": still here\n\n"), BEAT_MS);
      const closeWithServer = () => end();
      end = () => {
        end = () => {};
        clearInterval(beat);
        stop();
        process.off("SIGTERM", closeWithServer);
        process.off("SIGINT", closeWithServer);
        try {
          controller.close();
        } catch {
          // The other side closed it first.
        }
      };
      process.setMaxListeners(0);
      process.on("SIGTERM", closeWithServer);
      process.on("SIGINT", closeWithServer);
      request.signal.addEventListener("abort", () => end());
      send(": open\n\n");
    },
    cancel: () => end(),
  });
  return new Response(stream, {
    headers: { "content-type": "text/event-stream", "cache-control": "no-store", "x-accel-buffering": "no" },
  });
}
