import { randomUUID } from "node:crypto";
import type { Db, Tx } from "../db/database";
import { stateNow, type RowHashes } from "../db/stateRows";
import { actTime_ms } from "../runtime/clock";
import { appendToLedger, inLedger } from "./append";
import { headFilePath } from "./headFile";
import { CLOCK, COMMAND_LINE } from "./nobody";

/** Where it is written down, and when. */
export type Where = Readonly<{ headFile: string; now_ms: number }>;
export const here = (): Where => ({ headFile: headFilePath(), now_ms: Date.now() });

/** What was done on the server's own command line: state and ledger together, in the name of nobody. */
export function onCommandLine(
  db: Db,
  said: Readonly<{ type: string; subject: string; input: unknown; did: string }>,
  write: (tx: Tx) => void,
  where: Where = here(),
): void {
  inLedger(db, where.headFile, (tx) => {
    write(tx);
    const at_ms = actTime_ms(tx, where.now_ms);
    const head = appendToLedger(tx, {
      actId: randomUUID(),
      type: said.type,
      outcome: "done",
      by: COMMAND_LINE,
      subject: said.subject,
      doneAt_ms: at_ms,
      recordedAt_ms: at_ms,
      transcribedBy: null,
      corrects: null,
      input: said.input,
      answer: { ok: true, answer: { did: said.did } },
    });
    return { head, value: undefined };
  });
}

/**
 * The state as it is, taken into the record: once, for what was written before the ledger said which rows it wrote, and
 * after tables were changed by an upgrade. Answers whether there was anything to take.
 */
export function takeOver(db: Db, why: string, where: Where = here()): boolean {
  const wrote: Record<string, Record<string, string>> = {};
  for (const { table, key, hash } of stateNow(db.$client)) (wrote[table] ??= {})[key] = hash;
  if (Object.keys(wrote).length === 0) return false;
  inLedger(db, where.headFile, (tx) => {
    const at_ms = actTime_ms(tx, where.now_ms);
    const head = appendToLedger(tx, {
      actId: randomUUID(),
      type: "state.taken-over",
      outcome: "done",
      by: CLOCK,
      subject: "",
      doneAt_ms: at_ms,
      recordedAt_ms: at_ms,
      transcribedBy: null,
      corrects: null,
      input: { why },
      answer: { ok: true, answer: { did: `The state as it was is part of the record from here: ${why}.` } },
      wrote: wrote satisfies RowHashes,
    });
    return { head, value: undefined };
  });
  return true;
}
