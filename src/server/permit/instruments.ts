import { eq } from "drizzle-orm";
import { isSilent, sentSchema } from "../../core/permit/air/instruments";
import { actTime_ms } from "../runtime/clock";
import { database, type Db } from "../db/database";
import { detectors } from "../db/schema";
import { announce } from "../runtime/events";
import { DiskFull, inLedger } from "../ledger/append";
import { headFilePath } from "../ledger/headFile";
import { detectorByToken, sentOf } from "./detectorStore";
import { settlePermit } from "./settlePermits";
import { instrumentName } from "../ledger/nobody";

export type Received =
  Readonly<{ ok: true; stopped: string | null }> | Readonly<{ ok: false; status: 400 | 401 | 503; sentence: string }>;

/**
 * Takes one message of an instrument. If what it says is against the permit where it is posted, that permit stops in the
 * same transaction: nobody has to look at a screen for it.
 */
export function receive(
  token: string,
  body: unknown,
  clock_ms: number,
  db: Db = database(),
  headFile = headFilePath(),
): Received {
  try {
    return take(token, body, clock_ms, db, headFile);
  } catch (error) {
    if (!(error instanceof DiskFull)) throw error;
    // Nobody hears it again: the detector counts as silent from now on, and silence stops the work.
    return { ok: false, status: 503, sentence: "The server's disk is full; the message was not kept." };
  }
}

function take(token: string, body: unknown, clock_ms: number, db: Db, headFile: string): Received {
  const row = detectorByToken(db, token);
  if (row === null) return { ok: false, status: 401, sentence: "No instrument has this token." };
  const sent = sentSchema.safeParse(body);
  if (!sent.success) {
    const issue = sent.error.issues[0];
    return {
      ok: false,
      status: 400,
      sentence: `${issue?.path.join(".") ?? ""}: ${issue?.message ?? "not understood"}`,
    };
  }
  const before = sentOf(row);
  const cameBack = isSilent({ posted_ms: 0, last_ms: row.lastAt }, clock_ms);
  // Late or twice; after a silence its counter may have begun anew.
  if (before !== null && sent.data.sequence <= before.sequence && !cameBack) return { ok: true, stopped: null };
  // What an instrument says stops the work even where the record is broken.
  const head = inLedger(
    db,
    headFile,
    (tx) => {
      const now_ms = actTime_ms(tx, clock_ms);
      // What its silence did is written down before it is heard again: afterwards nobody would know of it.
      const missed =
        cameBack && row.permit !== null ? settlePermit(tx, row.permit, now_ms, instrumentName(row.id)) : null;
      // When it was heard is by the clock itself: acts may stand later than that, where it was set back.
      tx.update(detectors).set({ lastAt: clock_ms, lastReading: sent.data }).where(eq(detectors.id, row.id)).run();
      const head = row.permit === null ? null : settlePermit(tx, row.permit, now_ms, instrumentName(row.id));
      return { head: head ?? missed, value: head ?? missed };
    },
    true,
  );
  const subject = row.permit ?? row.id;
  announce({ kind: "instrument", subject, about: [subject] });
  return { ok: true, stopped: head === null ? null : row.permit };
}
