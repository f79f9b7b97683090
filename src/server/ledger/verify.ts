import { z } from "zod";
import { asc } from "drizzle-orm";
import type { Db } from "../db/database";
import { ledger } from "../db/schema";
import { parsed } from "../db/jsonColumn";
import { chainHash, GENESIS, readHeadFile } from "./append";

export type Verification = Readonly<
  { ok: true; rows: number; head: string } | { ok: false; faults: readonly string[] }
>;

/**
 * Walks the whole chain and names every row that was changed, removed or inserted, and a tail that was cut.
 *
 * Each row's hash is worked out again from its body and the hash before; its columns are compared with its body; the
 * numbers must run without a gap; the head file must not know of rows that are gone. Also asks SQLite to check itself.
 */
export function verifyLedger(db: Db, headFile: string): Verification {
  const faults: string[] = [];
  let previous = GENESIS;
  let expected = 1;
  const hashAt = new Map<number, string>();
  for (const row of db.select().from(ledger).orderBy(asc(ledger.seq)).all()) {
    const name = `row ${row.seq}`;
    if (row.seq > expected) faults.push(`rows ${expected} to ${row.seq - 1} are missing`);
    expected = row.seq + 1;
    if (row.previousHash !== previous)
      faults.push(`${name} does not follow the row before it: one was changed, removed or inserted`);
    if (chainHash(row.previousHash, row.body) !== row.hash)
      faults.push(`${name} was changed: its hash does not fit its body`);
    faults.push(...columnFaults(row, name));
    hashAt.set(row.seq, row.hash);
    previous = row.hash;
  }
  const head = readHeadFile(headFile);
  if (head === null) {
    if (hashAt.size > 0) faults.push("the head file is missing");
  } else if (head.seq > 0 && !hashAt.has(head.seq)) {
    faults.push(`the tail was cut: the head file knows row ${head.seq}, the last row is ${expected - 1}`);
  } else if (head.seq > 0 && hashAt.get(head.seq) !== head.hash) {
    faults.push(`row ${head.seq} is not the one that the head file knows`);
  } else if (head.seq < expected - 2) {
    // One act may be on disk whose head was not: the process died between the two. More than one was never acknowledged.
    faults.push(`rows ${head.seq + 2} to ${expected - 1} were inserted: the head file knows only row ${head.seq}`);
  }
  const integrity = db.$client.pragma("integrity_check", { simple: true });
  if (integrity !== "ok") faults.push(`the database is damaged: ${String(integrity)}`);
  return faults.length === 0 ? { ok: true, rows: hashAt.size, head: previous } : { ok: false, faults };
}

function columnFaults(row: typeof ledger.$inferSelect, name: string): string[] {
  let body: Record<string, unknown>;
  try {
    body = parsed(name, z.record(z.string(), z.unknown()), row.body);
  } catch {
    return [`${name} was changed: its body cannot be read`];
  }
  const pairs: readonly (readonly [string, unknown, unknown])[] = [
    ["seq", row.seq, body.seq],
    ["act_id", row.actId, body.actId],
    ["type", row.type, body.type],
    ["outcome", row.outcome, body.outcome],
    ["by_person", row.byPerson, body.by],
    ["subject", row.subject, body.subject],
    ["done_at_ms", row.doneAt, body.doneAt_ms],
    ["recorded_at_ms", row.recordedAt, body.recordedAt_ms],
    ["transcribed_by", row.transcribedBy, body.transcribedBy],
    ["corrects", row.corrects, body.corrects],
    ["body_version", row.bodyVersion, body.v],
  ];
  return pairs
    .filter(([, column, said]) => column !== said)
    .map(([column]) => `${name} was changed: column ${column} does not fit its body`);
}
