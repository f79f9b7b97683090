import { and, eq, isNotNull, ne, sql } from "drizzle-orm";
import type { Stops } from "../../core/guard/clashes";
import type { LiveJob } from "../../core/guard/guardRelease";
import type { Tx } from "../db/database";
import { isAmong } from "../db/isAmong";
import { isolations, jobIsolations, jobs, steps } from "../db/schema";
import { acceptedForAll } from "../job/deviationStore";
import { boxesOf, locksOn } from "../box/locks";
import { heldTags } from "../box/heldTags";
import { grouped } from "../runtime/grouped";

/** An isolation that holds points now, as one of its jobs counts on it. */
export type HeldIsolation = LiveJob &
  Readonly<{ peopleIds: readonly string[]; isolation: string; isolationState: string; plantRevision: number }>;

/** Jobs with an isolation that is not restored, a row for each of the two. */
function standing(tx: Tx) {
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
    .all();
}

/**
 * What every job with an isolation that is not restored stops, by its locks and by its plan: a point that nobody has locked yet
 * will be. Cost: three queries, however many.
 */
export function liveStops(tx: Tx): Stops[] {
  const rows = standing(tx);
  const ids = [...new Set(rows.map(({ isolationId }) => isolationId))];
  const held = heldTags(tx, ids);
  const planned = grouped(
    tx
      .select({ isolationId: steps.isolationId, subject: sql<string>`json_extract(${steps.step}, '$.subject')` })
      .from(steps)
      .where(and(isAmong(steps.isolationId, ids), sql`json_extract(${steps.step}, '$.kind') = 'lock'`))
      .all(),
    ({ isolationId }) => isolationId,
  );
  return rows.map(({ isolationId, inputs, number }) => ({
    number,
    points: [...new Set([...held(isolationId), ...planned(isolationId).map(({ subject }) => subject)])],
    mustPass: inputs.mustPass,
  }));
}

/** Every job that stands on an isolation not restored, with the points it holds now. Cost: seven queries, however many. */
export function liveJobs(tx: Tx): HeldIsolation[] {
  const rows = standing(tx);
  const ids = [...new Set(rows.map(({ isolationId }) => isolationId))];
  const held = heldTags(tx, ids);
  const openedBy = openedBleeds(tx, ids);
  const accepted = acceptedForAll(tx, [...new Set(rows.map(({ jobId }) => jobId))]);
  const boxes = boxesOf(tx, ids);
  const locksOf = grouped(locksOn(tx, [...new Set(boxes.map(({ id }) => id))]), ({ boxId }) => boxId);
  const boxOf = grouped(boxes, ({ isolationId }) => isolationId);
  return rows.map((row) => {
    // Everybody whose lock hangs for the isolation, once each.
    const on = new Map(
      boxOf(row.isolationId).flatMap(({ id }) => locksOf(id).map((lock) => [lock.personId, lock.person] as const)),
    );
    return {
      number: row.number,
      isolation: row.isolation,
      isolationState: row.state,
      plantRevision: row.plantRevision,
      job: row.inputs,
      holds: held(row.isolationId),
      opened: openedBy(row.isolationId),
      accepted: Object.fromEntries(
        accepted(row.jobId).map((one) => [one.way, { grade: one.acceptedGrade, depth: one.acceptedDepth }]),
      ),
      counts: row.state === "proven" || row.state === "testing",
      people: [...on.values()],
      peopleIds: [...on.keys()],
    };
  });
}

/** Tags of bleeds, and valves before them, that each isolation has opened and not closed again. Cost: one query. */
function openedBleeds(tx: Tx, isolationIds: readonly string[]): (isolationId: string) => readonly string[] {
  const kind = sql<string>`json_extract(${steps.step}, '$.kind')`;
  const done = tx
    .select({ id: steps.isolationId, kind, subject: sql<string>`json_extract(${steps.step}, '$.subject')` })
    .from(steps)
    .where(
      and(isAmong(steps.isolationId, isolationIds), isNotNull(steps.doneAt), sql`${kind} IN ('bleed', 'close bleed')`),
    )
    .all();
  const ofIsolation = grouped(done, ({ id }) => id);
  return (isolationId) => {
    const own = ofIsolation(isolationId);
    const subjectsOf = (wanted: string) => own.flatMap((one) => (one.kind === wanted ? [one.subject] : []));
    const closed = new Set(subjectsOf("close bleed"));
    return subjectsOf("bleed").filter((tag) => !closed.has(tag));
  };
}
