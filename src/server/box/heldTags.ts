import { and, asc, eq, isNull } from "drizzle-orm";
import { isAmong } from "../db/isAmong";
import type { Tx } from "../db/database";
import { holds, items } from "../db/schema";
import { grouped } from "../runtime/grouped";

/** Tags of the devices that each isolation holds now. Cost: one query. */
export function heldTags(tx: Tx, isolationIds: readonly string[]): (isolationId: string) => readonly string[] {
  if (isolationIds.length === 0) return () => [];
  const held = grouped(
    tx
      .select({ isolationId: holds.isolationId, tag: items.tag })
      .from(holds)
      .innerJoin(items, eq(items.id, holds.itemId))
      .where(and(isAmong(holds.isolationId, isolationIds), isNull(holds.liftedAt)))
      .orderBy(asc(items.tag))
      .all(),
    ({ isolationId }) => isolationId,
  );
  return (id) => held(id).map(({ tag }) => tag);
}
