import { and, eq, isNull } from "drizzle-orm";
import type { Tx } from "../db/database";
import { crewRounds, permits, sessions } from "../db/schema";

/**
 * A screen that stands at the box for a crew: whoever passes it finds the crew round on it and nothing else, until its leader
 * ends the round by their PIN or signs out. It is the session that stands there; the leader's other devices do not.
 */

/** The screen of this session stands at the box for a crew round from now on. */
export function standAtBox(tx: Tx, session: string | undefined, crewRound: string): void {
  if (session === undefined) return;
  tx.update(sessions).set({ crewRound }).where(eq(sessions.tokenHash, session)).run();
}

/** Every screen that stood at the box for this crew round is free again. */
export function leaveBox(tx: Tx, crewRound: string): void {
  tx.update(sessions).set({ crewRound: null }).where(eq(sessions.crewRound, crewRound)).run();
}

/** The permit at whose box a screen stands; null where its round was ended. */
export function permitAtBox(tx: Tx, crewRound: string): string | null {
  const row = tx
    .select({ permit: permits.number })
    .from(crewRounds)
    .innerJoin(permits, eq(permits.id, crewRounds.permitId))
    .where(and(eq(crewRounds.number, crewRound), isNull(crewRounds.endedAt)))
    .get();
  return row?.permit ?? null;
}
