import type { Tx } from "./db/database";
import { desc } from "drizzle-orm";
import { ledger } from "./db/schema";

/** The time of an act, in ms UTC. It never runs below the ledger's last, so a clock set back cannot reorder acts. */
export function actTime_ms(tx: Tx, clock_ms: number): number {
  const last = tx.select({ at: ledger.recordedAt }).from(ledger).orderBy(desc(ledger.seq)).limit(1).get();
  return Math.max(clock_ms, last?.at ?? 0);
}
