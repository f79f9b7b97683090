import { now_ms } from "../runtime/clock";
import { settleAll } from "./settlePermits";

/** Permits run out at the second. */
const EVERY_MS = 1000;

const running = globalThis as { heavyLanternTicker?: NodeJS.Timeout };

/**
 * Looks every second at what the clock ends and at instruments that fell silent. What ran out while the server slept is
 * acted on by the first look, before anybody asks.
 */
export function startTicker(): void {
  if (running.heavyLanternTicker !== undefined) return;
  const look = () => {
    try {
      settleAll(now_ms());
    } catch (error) {
      // One look may fail, for the disk is full or a backup holds the file: the next one is a second away.
      console.error("looking after the permits failed", error);
    }
  };
  look();
  running.heavyLanternTicker = setInterval(look, EVERY_MS);
  running.heavyLanternTicker.unref();
}
