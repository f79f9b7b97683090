import { CLOCK_STEP_MS } from "../../core/ledger/clockWatch";
import type { Tx } from "../db/database";
import { desc } from "drizzle-orm";
import { ledger } from "../db/schema";
import { question } from "../db/question";

/** Moved by browser tests only, and only where the environment says so. */
const moved = globalThis as { heavyLanternClockOffset_ms?: number; heavyLanternClockSet_ms?: number };

export function isTestClock(): boolean {
  return process.env.LANTERN_TEST_CLOCK === "1";
}

/** The server's clock, in ms UTC. Every request and every timer asks here; sessions keep to the machine's own. */
export function now_ms(): number {
  return Date.now() + (isTestClock() ? (moved.heavyLanternClockOffset_ms ?? 0) : 0);
}

/** Sets the clock of a test on or back, as if that time had gone by; or, `set_ms` of it, as if somebody had set the clock. */
export function moveClock(offset_ms: number, set_ms = 0): void {
  if (!isTestClock()) throw new Error("the clock is not moved outside tests");
  moved.heavyLanternClockOffset_ms = offset_ms;
  moved.heavyLanternClockSet_ms = set_ms;
}

/** By how much of its offset the clock of a test was set; nothing outside tests. */
export function testClockSet_ms(): number {
  return isTestClock() ? (moved.heavyLanternClockSet_ms ?? 0) : 0;
}

/**
 * The time of an act, in ms UTC. It never runs below the ledger's last, so a clock set back cannot reorder acts: they stand
 * still until it has caught up, or until a person says that it is right now.
 */
export function actTime_ms(tx: Tx, clock_ms: number): number {
  return Math.max(clock_ms, lastAct_ms(tx));
}

/** By how much the clock was set back since the last act, in ms; null where it was not. */
export function clockStep_ms(tx: Tx, clock_ms: number): number | null {
  const back_ms = lastAct_ms(tx) - clock_ms;
  return back_ms > CLOCK_STEP_MS ? back_ms : null;
}

function lastAct_ms(tx: Tx): number {
  return lastRow(tx).get()?.at ?? 0;
}

const lastRow = question((tx) =>
  tx.select({ at: ledger.recordedAt }).from(ledger).orderBy(desc(ledger.seq)).limit(1).prepare(),
);
