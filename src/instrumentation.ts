/** Runs once when the server starts, before the first request. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== "nodejs") return;
  const { startWorkers } = await import("./server/runtime/workers");
  startWorkers();
  const { startTicker } = await import("./server/permit/ticker");
  startTicker();
}
