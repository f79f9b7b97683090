import { now_ms } from "../runtime/clock";
import { onHappening } from "../runtime/events";
import { inSlices } from "../runtime/inSlices";
import { log } from "../runtime/log";
import { noticeClock, startClockWatch } from "./clockWatch";
import { settleSteps } from "./settlePermits";

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
  startClockWatch();
  let timer: NodeJS.Timeout | undefined;
  let due_ms = Infinity;
  /** Something was done since the last look began. */
  let happened = false;
  const wake = (in_ms: number) => {
    const at_ms = performance.now() + in_ms;
    if (at_ms >= due_ms) return;
    clearTimeout(timer);
    due_ms = at_ms;
    timer = setTimeout(() => {
      happened = false;
      void look();
    }, in_ms);
    timer.unref();
  };
  const look = async () => {
    // Until it is over nobody else begins one; what happens meanwhile is looked at right after it.
    due_ms = -Infinity;
    const from_ms = performance.now();
    let next_ms = 1000;
    try {
      noticeClock();
      const clock_ms = now_ms();
      next_ms = (await inSlices(settleSteps(clock_ms))).next_ms - clock_ms - (performance.now() - from_ms);
    } catch (error) {
      // One look may fail, for the disk is full or a backup holds the file: the next one is a second away.
      log().error({ err: error }, "looking after the permits failed");
    }
    due_ms = Infinity;
    wake(Math.min(LONGEST_MS, Math.max(SHORTEST_MS, next_ms)));
    if (happened) wake(AFTER_ACT_MS);
    happened = false;
  };
  // An instrument's message is judged when it comes; what it may bring on later is its silence.
  onHappening(({ kind }) => {
    if (kind !== "instrument") happened = true;
    wake(kind === "instrument" ? LONGEST_MS : AFTER_ACT_MS);
  });
  void look();
}
