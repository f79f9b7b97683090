import { createHash } from "node:crypto";
import { desc, sql } from "drizzle-orm";
import { canonicalJson } from "../../core/ledger/canonicalJson";
import type { Db, Tx } from "../db/database";
import { ledger } from "../db/schema";
import { question } from "../db/question";
import { takeHeard, takeWritten, type Heard, type RowHashes } from "../db/stateRows";
import { isDiskFull, saysFull, spendReserve } from "../runtime/reserve";
import { intendHead, readHeadFile, writeHeadFile, type LedgerHead } from "./headFile";

/** 2: says which rows of state it wrote. */
export const BODY_VERSION = 2;
/** What the first row carries as the hash of the row before. */
export const GENESIS = "0".repeat(64);

/** What a ledger row says. Person ids, never names: names change. */
export type LedgerEntry = Readonly<{
  actId: string;
  type: string;
  outcome: "done" | "refused";
  by: string;
  subject: string;
  doneAt_ms: number;
  recordedAt_ms: number;
  transcribedBy: string | null;
  corrects: number | null;
  /** What was asked, without secrets. */
  input: unknown;
  /** What the act answered; given again when the same act is sent again. */
  answer: unknown;
  /** The token by which a program sent it; absent where a person did. */
  via?: string;
  /** The rows of state that were written with it, and what each hashes to; from version 2 on. */
  wrote?: RowHashes;
  /** What instruments had said since the row before. */
  heard?: readonly Heard[];
}>;

/** The last row's number and hash; row 0 and GENESIS when the ledger is empty. */
export function ledgerHead(tx: Tx): LedgerHead {
  return lastRow(tx).get() ?? { seq: 0, hash: GENESIS };
}

const lastRow = question((tx) =>
  tx.select({ seq: ledger.seq, hash: ledger.hash }).from(ledger).orderBy(desc(ledger.seq)).limit(1).prepare(),
);

/** Appends one row; must run inside the transaction that writes the state it speaks of. */
export function appendToLedger(tx: Tx, entry: LedgerEntry): LedgerHead {
  const head = ledgerHead(tx);
  const seq = head.seq + 1;
  const wrote = entry.wrote ?? takeWritten(tx);
  const heard = entry.heard ?? takeHeard(tx);
  const more = { ...(wrote ? { wrote } : {}), ...(heard ? { heard } : {}) };
  return insert(tx, head, canonicalJson({ v: BODY_VERSION, seq, ...entry, ...more }), BODY_VERSION, entry);
}

/** A row as another ledger has it, word for word. */
export function appendAsItWas(tx: Tx, body: string, version: number, entry: Columns): LedgerHead {
  takeWritten(tx);
  takeHeard(tx);
  return insert(tx, ledgerHead(tx), body, version, entry);
}

/** What has columns of its own beside the body. */
type Columns = Omit<LedgerEntry, "input" | "answer" | "via" | "wrote" | "heard">;

function insert(tx: Tx, head: LedgerHead, body: string, version: number, entry: Columns): LedgerHead {
  const seq = head.seq + 1;
  const hash = chainHash(head.hash, body);
  newRow(tx).run({
    seq,
    actId: entry.actId,
    bodyVersion: version,
    type: entry.type,
    outcome: entry.outcome,
    byPerson: entry.by,
    subject: entry.subject,
    doneAt: entry.doneAt_ms,
    recordedAt: entry.recordedAt_ms,
    transcribedBy: entry.transcribedBy,
    corrects: entry.corrects,
    body,
    previousHash: head.hash,
    hash,
  } satisfies Record<keyof typeof ledger.$inferInsert, unknown>);
  return { seq, hash };
}

const newRow = question((tx) =>
  tx
    .insert(ledger)
    .values({
      seq: sql.placeholder("seq"),
      actId: sql.placeholder("actId"),
      bodyVersion: sql.placeholder("bodyVersion"),
      type: sql.placeholder("type"),
      outcome: sql.placeholder("outcome"),
      byPerson: sql.placeholder("byPerson"),
      subject: sql.placeholder("subject"),
      doneAt: sql.placeholder("doneAt"),
      recordedAt: sql.placeholder("recordedAt"),
      transcribedBy: sql.placeholder("transcribedBy"),
      corrects: sql.placeholder("corrects"),
      body: sql.placeholder("body"),
      previousHash: sql.placeholder("previousHash"),
      hash: sql.placeholder("hash"),
    })
    .prepare(),
);

export function chainHash(previous: string, body: string): string {
  return createHash("sha256").update(previous).update("\n").update(body).digest("hex");
}

/** The record does not go on where it ended: somebody changed it, or put another in its place. */
export class RecordBroken extends Error {
  constructor(readonly why: string) {
    super(why);
  }
}

/** Nothing more fits on the disk, and what was asked protects nobody. */
export class DiskFull extends Error {}

/**
 * Runs what appends to the ledger in one transaction, with the head file written before and after. Refuses where the ledger
 * does not end as the head file says: what would be appended then would make a broken record look whole. `evenSo` is for
 * what protects people: it is done, and the head file stays as it is, as evidence.
 *
 * On a full disk the reserve is spent for what protects people, and nothing else is done.
 *
 * @throws DiskFull where there is no room; RecordBroken before anything is written, or where the head file cannot be written.
 */
export function inLedger<T>(
  db: Db,
  headFile: string,
  run: (tx: Parameters<Parameters<Db["transaction"]>[0]>[0]) => Readonly<{ head: LedgerHead | null; value: T }>,
  evenSo = false,
): T {
  if (!evenSo && isDiskFull()) throw new DiskFull();
  try {
    return inLedgerOnce(db, headFile, run, evenSo);
  } catch (error) {
    if (!saysFull(error)) throw error;
    if (!evenSo || !spendReserve()) throw new DiskFull();
    return inLedgerOnce(db, headFile, run, evenSo);
  }
}

function inLedgerOnce<T>(
  db: Db,
  headFile: string,
  run: (tx: Parameters<Parameters<Db["transaction"]>[0]>[0]) => Readonly<{ head: LedgerHead | null; value: T }>,
  evenSo: boolean,
): T {
  let isBroken = false;
  const { head, value } = db.transaction(
    (tx) => {
      const before = ledgerHead(tx);
      const made = run(tx);
      if (made.head === null) return made;
      const why = brokenAt(before, headFile) ?? intended(before, made.head, headFile);
      isBroken = why !== null;
      if (why !== null && !evenSo) throw new RecordBroken(why);
      return made;
    },
    { behavior: "immediate" },
  );
  if (head !== null && !isBroken) writeHeadFile(head, headFile);
  return value;
}

/** Why a ledger that ends there is not the one that the head file knows; null when it is. */
export function brokenAt(last: LedgerHead, headFile: string): string | null {
  let known;
  try {
    known = readHeadFile(headFile);
  } catch {
    return "the head file is damaged";
  }
  if (known === null) return last.seq === 0 ? null : "the head file is missing";
  const fits = [known, known.next].some((one) => one !== undefined && one.seq === last.seq && one.hash === last.hash);
  // An empty ledger has no row, and a head file of before any row says so.
  return fits || (last.seq === 0 && known.seq === 0)
    ? null
    : `the head file knows row ${(known.next ?? known).seq}, and the last row is ${last.seq === known.seq ? "another" : last.seq}`;
}

function intended(before: LedgerHead, next: LedgerHead, headFile: string): string | null {
  try {
    intendHead(before, next, headFile);
    return null;
  } catch (error) {
    return `the head file cannot be written (${(error as NodeJS.ErrnoException).code ?? "unknown"})`;
  }
}
