/**
 * Work that says, by yielding, where it may be put down for a while. Whoever answers others meanwhile does it bit by bit;
 * everybody else calls this.
 */
export function inOneGo<T>(steps: Generator<void, T>): T {
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}
