import { now_ms } from "../runtime/clock";
import { onHappening } from "../runtime/events";
import { settleRunning } from "./settlePermits";

/** It never sleeps longer, whatever it was told: a clock may jump, a machine may sleep. */
const LONGEST_MS = 15_000;
const SHORTEST_MS = 50;
/** What happens together is looked at once. */
const AFTER_ACT_MS = 100;

const running = globalThis as { heavyLanternTicker?: true };

/**
 * Looks after the permits: at what the clock ends and at instruments that fell silent. It sleeps until the next moment that
 * is due, or until something is done that may change one. What ran out while the server slept is acted on by the first
 * look, before anybody asks.
 */
export function startTicker(): void {
  if (running.heavyLanternTicker) return;
  running.heavyLanternTicker = true;
  let timer: NodeJS.Timeout | undefined;
  let due_ms = Infinity;
  const wake = (in_ms: number) => {
    const at_ms = performance.now() + in_ms;
    if (at_ms >= due_ms) return;
    clearTimeout(timer);
    due_ms = at_ms;
    timer = setTimeout(look, in_ms);
    timer.unref();
  };
  const look = () => {
    due_ms = Infinity;
    let next_ms = 1000;
    try {
      const clock_ms = now_ms();
      next_ms = settleRunning(clock_ms).next_ms - clock_ms;
    } catch (error) {
      // One look may fail, for the disk is full or a backup holds the file: the next one is a second away.
      console.error("looking after the permits failed", error);
    }
    wake(Math.min(LONGEST_MS, Math.max(SHORTEST_MS, next_ms)));
  };
  // An instrument's message is judged when it comes; what it may bring on later is its silence.
  onHappening(({ kind }) => wake(kind === "instrument" ? LONGEST_MS : AFTER_ACT_MS));
  look();
}
