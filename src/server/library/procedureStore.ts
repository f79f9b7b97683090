import { randomUUID } from "node:crypto";
import { and, asc, count, desc, eq } from "drizzle-orm";
import type { ProcedureContent, ProcedureLife } from "../../core/library/procedure";
import type { Tx } from "../db/database";
import { procedures, procedureVersions } from "../db/schema";

type Row = typeof procedureVersions.$inferSelect;

export type StoredVersion = Readonly<{
  id: string;
  procedureId: string;
  title: string;
  equipment: string;
  /** The job that it was taken from. */
  job: string;
  content: ProcedureContent;
  life: ProcedureLife;
}>;

function toStored(procedure: typeof procedures.$inferSelect, row: Row): StoredVersion {
  return {
    id: row.id,
    procedureId: procedure.id,
    title: procedure.title,
    equipment: procedure.equipment,
    job: row.job,
    content: row.content,
    life: {
      number: procedure.number,
      version: row.version,
      state: row.state,
      writtenBy: row.writtenBy,
      writtenAt_ms: row.writtenAt,
      trades: row.content.trades,
      signatures: row.signatures,
      inspections: row.inspections,
    },
  };
}

/** A version of a procedure by number; the newest where none is named. Null where there is none. Cost: one query. */
export function loadVersion(tx: Tx, number: string, version?: number): StoredVersion | null {
  const row = tx
    .select({ procedure: procedures, version: procedureVersions })
    .from(procedureVersions)
    .innerJoin(procedures, eq(procedures.id, procedureVersions.procedureId))
    .where(
      and(eq(procedures.number, number), version === undefined ? undefined : eq(procedureVersions.version, version)),
    )
    .orderBy(desc(procedureVersions.version))
    .limit(1)
    .get();
  return row ? toStored(row.procedure, row.version) : null;
}

/** Every version of every procedure, the newest version first. Cost: one query. */
export function allVersions(tx: Tx, number?: string): StoredVersion[] {
  return tx
    .select({ procedure: procedures, version: procedureVersions })
    .from(procedureVersions)
    .innerJoin(procedures, eq(procedures.id, procedureVersions.procedureId))
    .where(number === undefined ? undefined : eq(procedures.number, number))
    .orderBy(asc(procedures.number), desc(procedureVersions.version))
    .all()
    .map(({ procedure, version }) => toStored(procedure, version));
}

/** The version by which work is requested: the approved one; null where there is none. */
export function approvedVersion(tx: Tx, number: string): StoredVersion | null {
  return allVersions(tx, number).find(({ life }) => life.state === "approved") ?? null;
}

/** Writes a version under a procedure's number, or under a new one; answers both. */
export function writeVersion(
  tx: Tx,
  p: Readonly<{
    procedure: string | null;
    title: string;
    equipment: string;
    job: string;
    content: ProcedureContent;
    by: string;
    at_ms: number;
  }>,
): Readonly<{ number: string; version: number }> {
  const before = p.procedure === null ? null : loadVersion(tx, p.procedure);
  const number = before?.life.number ?? nextNumber(tx);
  const version = (before?.life.version ?? 0) + 1;
  const procedureId = before?.procedureId ?? randomUUID();
  if (before === null) {
    tx.insert(procedures).values({ id: procedureId, number, title: p.title, equipment: p.equipment }).run();
  } else {
    tx.update(procedures).set({ title: p.title, equipment: p.equipment }).where(eq(procedures.id, procedureId)).run();
  }
  tx.insert(procedureVersions)
    .values({
      id: randomUUID(),
      procedureId,
      version,
      state: "draft",
      content: p.content,
      job: p.job,
      writtenBy: p.by,
      writtenAt: p.at_ms,
      signatures: [],
      inspections: [],
    })
    .run();
  return { number, version };
}

function nextNumber(tx: Tx): string {
  const found = tx.select({ n: count() }).from(procedures).get();
  return `IP-${String((found?.n ?? 0) + 1).padStart(4, "0")}`;
}

/** Saves what became of a version; where it is approved now, the one before is superseded. */
export function saveVersion(tx: Tx, stored: StoredVersion, life: ProcedureLife): void {
  if (life.state === "approved" && stored.life.state !== "approved") {
    tx.update(procedureVersions)
      .set({ state: "superseded" })
      .where(and(eq(procedureVersions.procedureId, stored.procedureId), eq(procedureVersions.state, "approved")))
      .run();
  }
  tx.update(procedureVersions)
    .set({ state: life.state, signatures: [...life.signatures], inspections: [...life.inspections] })
    .where(eq(procedureVersions.id, stored.id))
    .run();
}
