import { randomUUID } from "node:crypto";
import { and, count, desc, eq, isNull } from "drizzle-orm";
import type { CrewRound } from "../../core/crew/crewRound";
import type { PersonId } from "../../core/people/roles";
import type { Tx } from "../db/database";
import { crewRounds, permits } from "../db/schema";

const toRound = ({ round, permit }: { round: typeof crewRounds.$inferSelect; permit: string }): CrewRound => ({
  number: round.number,
  permit,
  lead: round.leadId as PersonId,
  begun_ms: round.begunAt,
  last_ms: round.lastAt,
  ended_ms: round.endedAt,
});

const rounds = (tx: Tx) =>
  tx
    .select({ round: crewRounds, permit: permits.number })
    .from(crewRounds)
    .innerJoin(permits, eq(permits.id, crewRounds.permitId));

export function crewRoundNumbered(tx: Tx, number: string): CrewRound | null {
  const row = rounds(tx).where(eq(crewRounds.number, number)).get();
  return row === undefined ? null : toRound(row);
}

/** The last crew round of a permit that this person began and nobody ended; it may be over by itself. */
export function crewRoundBy(tx: Tx, permit: string, lead: string): CrewRound | null {
  const row = rounds(tx)
    .where(and(eq(permits.number, permit), eq(crewRounds.leadId, lead), isNull(crewRounds.endedAt)))
    .orderBy(desc(crewRounds.begunAt))
    .get();
  return row === undefined ? null : toRound(row);
}

/** Writes a new crew round and answers its number. */
export function addCrewRound(tx: Tx, permitId: string, made: Omit<CrewRound, "number">): string {
  const { n } = tx.select({ n: count() }).from(crewRounds).get()!;
  const number = `C-${String(n + 1).padStart(4, "0")}`;
  const { lead: leadId, begun_ms: begunAt, last_ms: lastAt, ended_ms: endedAt } = made;
  tx.insert(crewRounds).values({ id: randomUUID(), number, permitId, leadId, begunAt, lastAt, endedAt }).run();
  return number;
}

export function saveCrewRound(tx: Tx, { number, last_ms, ended_ms }: CrewRound): void {
  tx.update(crewRounds).set({ lastAt: last_ms, endedAt: ended_ms }).where(eq(crewRounds.number, number)).run();
}
