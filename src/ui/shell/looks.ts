/** Many things may happen at once; the page is fetched once for them. */
const GATHER_MS = 250;

type Timer = Readonly<{ now_ms: () => number; after: (ms: number, then: () => void) => () => void }>;

/**
 * When a page looks again. `soon(0)` looks as soon as what happens together is gathered; `soon(n)` no sooner than n ms
 * after the last look, and then it does: a look that was asked for is put off, never dropped.
 */
export function looks(look: () => void, { now_ms, after }: Timer) {
  let last_ms = -Infinity;
  let due: Readonly<{ at_ms: number; cancel: () => void }> | null = null;
  return {
    soon(often_ms: number): void {
      const at_ms = Math.max(now_ms() + GATHER_MS, last_ms + often_ms);
      if (due !== null && due.at_ms <= at_ms) return;
      due?.cancel();
      const cancel = after(at_ms - now_ms(), () => {
        due = null;
        last_ms = now_ms();
        look();
      });
      due = { at_ms, cancel };
    },
    stop(): void {
      due?.cancel();
      due = null;
    },
  };
}
