/** Longer than this nobody else waits for it. */
const SLICE_MS = 8;

/** Does work that can be put down bit by bit, and lets everybody else be answered in between. */
export async function inSlices<T>(steps: Generator<void, T>): Promise<T> {
  for (;;) {
    const until_ms = performance.now() + SLICE_MS;
    do {
      const step = steps.next();
      if (step.done) return step.value;
    } while (performance.now() < until_ms);
    await new Promise(setImmediate);
  }
}
