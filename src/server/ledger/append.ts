import { createHash } from "node:crypto";
import { closeSync, fsyncSync, openSync, readFileSync, renameSync, writeSync } from "node:fs";
import { join } from "node:path";
import { desc } from "drizzle-orm";
import { z } from "zod";
import { canonicalJson } from "../../core/ledger/canonicalJson";
import { dataFolder, type Tx } from "../db/database";
import { ledger } from "../db/schema";

export const BODY_VERSION = 1;
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
}>;

const headSchema = z.object({ seq: z.number().int().min(0), hash: z.string() });
export type LedgerHead = Readonly<z.output<typeof headSchema>>;

/** The last row's number and hash; row 0 and GENESIS when the ledger is empty. */
export function ledgerHead(tx: Tx): LedgerHead {
  const last = tx.select({ seq: ledger.seq, hash: ledger.hash }).from(ledger).orderBy(desc(ledger.seq)).limit(1).get();
  return last ?? { seq: 0, hash: GENESIS };
}

/** Appends one row; must run inside the transaction that writes the state it speaks of. */
export function appendToLedger(tx: Tx, entry: LedgerEntry): LedgerHead {
  const head = ledgerHead(tx);
  const seq = head.seq + 1;
  const body = canonicalJson({ v: BODY_VERSION, seq, ...entry });
  const hash = chainHash(head.hash, body);
  tx.insert(ledger)
    .values({
      seq,
      actId: entry.actId,
      bodyVersion: BODY_VERSION,
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
    })
    .run();
  return { seq, hash };
}

export function chainHash(previous: string, body: string): string {
  return createHash("sha256").update(previous).update("\n").update(body).digest("hex");
}

/** The second file: the head after each commit, so that a cut tail of the ledger shows. */
export function headFilePath(folder = dataFolder()): string {
  return join(folder, "ledger-head.json");
}

export function writeHeadFile(head: LedgerHead, path = headFilePath()): void {
  const part = `${path}.part`;
  const file = openSync(/*turbopackIgnore: true*/ part, "w");
  try {
    writeSync(file, canonicalJson(head));
    fsyncSync(file);
  } finally {
    closeSync(file);
  }
  renameSync(/*turbopackIgnore: true*/ part, path);
}

/** The head file's word, or null when there is none yet. A file that cannot be read as one is an error. */
export function readHeadFile(path = headFilePath()): LedgerHead | null {
  let text: string;
  try {
    text = readFileSync(/*turbopackIgnore: true*/ path, "utf8");
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === "ENOENT") return null;
    throw error;
  }
  const head = headSchema.safeParse(JSON.parse(text));
  if (!head.success) throw new Error(`${path} is damaged`);
  return head.data;
}
