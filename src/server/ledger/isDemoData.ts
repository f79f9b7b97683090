import { eq } from "drizzle-orm";
import { database } from "../db/database";
import { ledger } from "../db/schema";
import { DEMO_MADE } from "./nobody";

/** The database was made by the demo, or is empty. */
export function isDemoData(): boolean {
  const first = database().select({ type: ledger.type }).from(ledger).where(eq(ledger.seq, 1)).get();
  return first === undefined || first.type === DEMO_MADE;
}
