import { randomUUID } from "node:crypto";
import { count, desc, eq } from "drizzle-orm";
import type { Handover } from "../../core/handover/handover";
import type { PersonId } from "../../core/people/roles";
import type { Tx } from "../db/database";
import { handovers } from "../db/schema";

export type StoredHandover = Handover & Readonly<{ number: string }>;

type Row = typeof handovers.$inferSelect;

const toHandover = ({ number, at, goingId, comingId, items, asked, remarks }: Row): StoredHandover => ({
  number,
  at_ms: at,
  going: goingId as PersonId,
  coming: comingId as PersonId,
  items,
  asked,
  remarks,
});

/** The last handover; null before the first. */
export function lastHandover(tx: Tx): StoredHandover | null {
  const [row] = tx.select().from(handovers).orderBy(desc(handovers.at), desc(handovers.number)).limit(1).all();
  return row === undefined ? null : toHandover(row);
}

export function handoverNumbered(tx: Tx, number: string): StoredHandover | null {
  const row = tx.select().from(handovers).where(eq(handovers.number, number)).get();
  return row === undefined ? null : toHandover(row);
}

/** Writes a new handover and answers its number. */
export function addHandover(tx: Tx, made: Handover): string {
  const { n } = tx.select({ n: count() }).from(handovers).get()!;
  const number = `H-${String(n + 1).padStart(4, "0")}`;
  tx.insert(handovers)
    .values({
      id: randomUUID(),
      number,
      at: made.at_ms,
      goingId: made.going,
      comingId: made.coming,
      items: made.items,
      asked: made.asked,
      remarks: made.remarks,
    })
    .run();
  return number;
}

export function saveAsked(tx: Tx, number: string, { asked }: Handover): void {
  tx.update(handovers).set({ asked }).where(eq(handovers.number, number)).run();
}
