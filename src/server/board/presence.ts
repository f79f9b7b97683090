import { and, eq, gte, isNull, or } from "drizzle-orm";
import { atWorkSince, LOOK_BACK_MS, type Seen } from "../../core/board/atWork";
import { whoIsWhere, type Presence } from "../../core/board/whoIsWhere";
import { database, type Tx } from "../db/database";
import { isAmong } from "../db/isAmong";
import { ledger, personalLocks } from "../db/schema";
import { openRows } from "../job/openJobs";
import { namesOf } from "../people/signIn";
import { openPermits } from "../permit/openPermits";
import { grouped } from "../runtime/grouped";
import { currentPlant } from "../plant/plantStore";
import { spotOfWork, spotsOf } from "../plant/spots";

/** Somebody with their name, and since when they have been at work without a rest, by what they signed. */
export type PresentNow = Presence & Readonly<{ name: string; atWorkSince_ms: number }>;

/** Everybody who is on, on post or inside now. Cost: one look at the permits, and four queries. */
export function presence(now_ms: number): readonly PresentNow[] {
  const db = database();
  const plant = currentPlant(db);
  const spot = spotsOf(plant);
  const jobOf = new Map(openRows(db).map((row) => [row.id, row]));
  const nameOf = namesOf(db);
  const under = openPermits(db, now_ms).map(({ now, row }) => {
    const job = jobOf.get(row.jobId);
    const places = job?.job.faces.map(({ place }) => place) ?? [];
    return { life: now, title: job?.title ?? row.words, area: spotOfWork(plant, spot, now.details, places).area };
  });
  const here = whoIsWhere(under);
  const seen = seenAtWork(
    db,
    here.map(({ person }) => person),
    now_ms,
  );
  return here.map((one) => ({
    ...one,
    name: nameOf(one.person),
    atWorkSince_ms: atWorkSince([...seen(one.person), { from_ms: one.since_ms, to_ms: now_ms }], now_ms)!,
  }));
}

/** Acts that are done where the work is; what somebody may do from home says nothing of how long they are here. */
const THERE = ["permit.", "step.", "box.", "isolation.", "return.", "crew."];

/** When these people were under a permit, and when they signed something at the work. */
function seenAtWork(tx: Tx, people: readonly string[], now_ms: number): (person: string) => readonly Seen[] {
  const since_ms = now_ms - LOOK_BACK_MS;
  const on = tx
    .select({ person: personalLocks.personId, from_ms: personalLocks.onAt, off_ms: personalLocks.offAt })
    .from(personalLocks)
    .where(
      and(isAmong(personalLocks.personId, people), or(isNull(personalLocks.offAt), gte(personalLocks.offAt, since_ms))),
    )
    .all();
  const signed = tx
    .select({ person: ledger.byPerson, at_ms: ledger.doneAt, type: ledger.type })
    .from(ledger)
    .where(and(gte(ledger.recordedAt, since_ms), isAmong(ledger.byPerson, people), eq(ledger.outcome, "done")))
    .all();
  const seen: (Seen & Readonly<{ person: string }>)[] = [
    ...on.map(({ person, from_ms, off_ms }) => ({ person, from_ms, to_ms: off_ms ?? now_ms })),
    ...signed
      .filter(({ type }) => THERE.some((begin) => type.startsWith(begin)))
      .map(({ person, at_ms }) => ({ person, from_ms: at_ms, to_ms: at_ms })),
  ];
  return grouped(seen, ({ person }) => person);
}
