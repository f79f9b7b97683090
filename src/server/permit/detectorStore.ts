import { createHash } from "node:crypto";
import { asc, eq } from "drizzle-orm";
import type { AirLimits } from "../../core/atmosphere/airLimits";
import type { GasSheet } from "../../core/gear/gasSheet";
import { againstSent, isSilent, missingFrom, silentFrom_ms, type Sent } from "../../core/permit/air/instruments";
import type { PostedDetector } from "../../core/permit/record/permitTypes";
import type { Tx } from "../db/database";
import { detectors } from "../db/schema";
import { question } from "../db/question";
import { whileUnchanged } from "../db/whileUnchanged";

export type DetectorRow = typeof detectors.$inferSelect;

export function tokenHash(token: string): string {
  return createHash("sha256").update(token).digest("hex");
}

export function detectorByToken(tx: Tx, token: string): DetectorRow | null {
  return (
    tx
      .select()
      .from(detectors)
      .where(eq(detectors.tokenHash, tokenHash(token)))
      .get() ?? null
  );
}

export function sentOf(row: Pick<DetectorRow, "lastReading">): Sent | null {
  return row.lastReading === null ? null : row.lastReading;
}

/** Every instrument that sends by itself, by id. */
export const detectorRows = whileUnchanged((tx): readonly DetectorRow[] => allDetectors(tx).all());
const allDetectors = question((tx) => tx.select().from(detectors).orderBy(asc(detectors.id)).prepare());

/** An instrument posted at a permit, with what is against it where it stands. */
export function asPosted(
  row: DetectorRow,
  at: Readonly<{ limits: AirLimits; sheet: GasSheet | null; gases: readonly string[] }>,
  now_ms: number,
): PostedDetector {
  const sent = sentOf(row);
  const heard = { posted_ms: row.postedAt ?? 0, last_ms: row.lastAt };
  const says = sent !== null && missingFrom(sent, row.kind, row.reads).length === 0;
  return {
    id: row.id,
    place: row.place,
    kind: row.kind,
    reads: row.reads,
    against: sent === null ? [] : againstSent(sent, at.limits, { kind: row.kind, sheet: at.sheet, gases: at.gases }),
    // A message without what it should carry says nothing.
    silent: isSilent(heard, now_ms) || (sent !== null && !says),
    silentFrom_ms: silentFrom_ms(heard),
  };
}
