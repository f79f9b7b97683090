import { randomUUID } from "node:crypto";
import { asc, count, eq, isNull } from "drizzle-orm";
import type { Muster } from "../../core/muster/muster";
import type { PersonId } from "../../core/people/roles";
import type { Tx } from "../db/database";
import { musters } from "../db/schema";

type Row = typeof musters.$inferSelect;

const toMuster = ({ number, area, reason, openedBy, openedAt, people, seen, closedBy, closedAt }: Row): Muster => ({
  number,
  area,
  reason,
  by: openedBy as PersonId,
  at_ms: openedAt,
  people,
  seen,
  closed: closedBy === null || closedAt === null ? null : { by: closedBy as PersonId, at_ms: closedAt },
});

/** Those that still stop work, the first opened first. Cost: one query. */
export function openMusters(tx: Tx): Muster[] {
  return tx.select().from(musters).where(isNull(musters.closedAt)).orderBy(asc(musters.number)).all().map(toMuster);
}

export function musterNumbered(tx: Tx, number: string): Muster | null {
  const row = tx.select().from(musters).where(eq(musters.number, number)).get();
  return row === undefined ? null : toMuster(row);
}

/** Writes a new muster and answers its number. */
export function addMuster(tx: Tx, made: Omit<Muster, "number">): string {
  const { n } = tx.select({ n: count() }).from(musters).get()!;
  const number = `M-${String(n + 1).padStart(4, "0")}`;
  tx.insert(musters)
    .values({
      id: randomUUID(),
      number,
      area: made.area,
      reason: made.reason,
      openedBy: made.by,
      openedAt: made.at_ms,
      people: made.people,
      seen: made.seen,
    })
    .run();
  return number;
}

export function saveMuster(tx: Tx, { number, seen, closed }: Muster): void {
  tx.update(musters)
    .set({ seen, closedBy: closed?.by ?? null, closedAt: closed?.at_ms ?? null })
    .where(eq(musters.number, number))
    .run();
}
