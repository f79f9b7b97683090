import { isNull, eq } from "drizzle-orm";
import { isAmong } from "../db/isAmong";
import { database } from "../db/database";
import { earthsOn, forcedRemovals, isolations, temporaryRestores } from "../db/schema";
import type { ShiftSheet } from "../paper/shiftSheet";
import { namesOf } from "../people/signIn";
import { handedOn } from "../permit/handedOn";
import { openPermits } from "../permit/openPermits";
import { openNumbers } from "./board";
import { jobViews } from "./jobView";

/** Everything one shift tells the next. */
export function shiftState(now_ms: number): ShiftSheet {
  const db = database();
  const nameOf = namesOf(db);
  const lifted = db
    .select({
      number: temporaryRestores.number,
      state: temporaryRestores.state,
      lift: temporaryRestores.lift,
      isolation: isolations.number,
    })
    .from(temporaryRestores)
    .innerJoin(isolations, eq(isolations.id, temporaryRestores.isolationId))
    .where(isAmong(temporaryRestores.state, ["asked", "running"]))
    .all()
    .map(
      ({ number, state, lift, isolation }) =>
        `${number}: ${lift.join(", ")} of isolation ${isolation} ${state === "running" ? "is lifted for a test" : "is asked to be lifted for a test"}.`,
    );
  const removals = db
    .select()
    .from(forcedRemovals)
    .where(isAmong(forcedRemovals.state, ["opened", "missing", "authorised", "cut"]))
    .all()
    .map(({ lock, ownerId, state }) => `Lock ${lock} of ${nameOf(ownerId)} was left on: ${state}.`);
  const earths = db
    .select({ isolation: isolations.number, number: earthsOn.number, place: earthsOn.place })
    .from(earthsOn)
    .innerJoin(isolations, eq(isolations.id, earthsOn.isolationId))
    .where(isNull(earthsOn.offAt))
    .all();
  const permits = new Map(openPermits(db, now_ms).map((one) => [one.life.number, handedOn(one)]));
  return { jobs: jobViews(openNumbers(db), now_ms), lifted, removals, earths, permits };
}
