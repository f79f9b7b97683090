import { and, eq, isNull, ne } from "drizzle-orm";
import type { LiveJob } from "../../core/guard/guardRelease";
import { jobSchema } from "../../core/request/jobFile";
import type { Tx } from "../db/database";
import { holds, isolations, items, jobIsolations, jobs } from "../db/schema";
import { acceptedFor } from "../job/deviationStore";
import { boxesOf, locksOn } from "../box/locks";

/** An isolation that holds points now, as one of its jobs counts on it. */
export type HeldIsolation = LiveJob &
  Readonly<{ peopleIds: readonly string[]; isolation: string; isolationState: string; plantRevision: number }>;

/** Every job that stands on an isolation not restored, with the points it holds now. Cost: a few look-ups for each. */
export function liveJobs(tx: Tx): HeldIsolation[] {
  return tx
    .select({
      isolationId: isolations.id,
      isolation: isolations.number,
      state: isolations.state,
      inputs: isolations.inputs,
      plantRevision: isolations.plantRevision,
      jobId: jobs.id,
      number: jobs.number,
    })
    .from(isolations)
    .innerJoin(jobIsolations, eq(jobIsolations.isolationId, isolations.id))
    .innerJoin(jobs, eq(jobs.id, jobIsolations.jobId))
    .where(ne(isolations.state, "restored"))
    .all()
    .map((row) => ({
      number: row.number,
      isolation: row.isolation,
      isolationState: row.state,
      plantRevision: row.plantRevision,
      job: jobSchema.parse(JSON.parse(row.inputs)),
      holds: tx
        .select({ tag: items.tag })
        .from(holds)
        .innerJoin(items, eq(items.id, holds.itemId))
        .where(and(eq(holds.isolationId, row.isolationId), isNull(holds.liftedAt)))
        .all()
        .map(({ tag }) => tag),
      accepted: Object.fromEntries(acceptedFor(tx, row.jobId).map((one) => [one.way, one.acceptedDepth])),
      counts: row.state === "proven" || row.state === "testing",
      ...peopleOn(tx, row.isolationId),
    }));
}

/** Everybody whose lock hangs for an isolation, once each. */
function peopleOn(tx: Tx, isolationId: string) {
  const on = locksOn(
    tx,
    boxesOf(tx, [isolationId]).map((box) => box.id),
  );
  const byId = new Map(on.map((lock) => [lock.personId, lock.person]));
  return { people: [...byId.values()], peopleIds: [...byId.keys()] };
}
