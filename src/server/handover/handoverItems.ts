import { and, asc, desc, eq, isNull, ne, notInArray } from "drizzle-orm";
import { keyOf, type HandoverItem } from "../../core/handover/handover";
import { isDone, openFailures } from "../../core/isolation/failures";
import { notHeld } from "../../core/isolation/heldNow";
import { stepLabel } from "../../core/procedure/steps";
import { notHeldClause } from "../../core/words/en/notHeld";
import { heldTags } from "../box/heldTags";
import { isAmong } from "../db/isAmong";
import type { Tx } from "../db/database";
import {
  deviations,
  earthsOn,
  forcedRemovals,
  isolations,
  jobIsolations,
  jobs,
  permits,
  plantRevisions,
  temporaryRestores,
} from "../db/schema";
import { loadIsolations } from "../isolation/isolationStore";
import { staleOfAll } from "../isolation/proofStore";
import { asNow, revisionToday } from "../isolation/verdictStore";
import { namesOf } from "../people/signIn";
import { handedOn } from "../permit/handedOn";
import { permitsNow } from "../permit/permitFacts";
import { currentPlant, itemAt } from "../plant/plantStore";
import { grouped } from "../runtime/grouped";
import { siteTime } from "../runtime/siteTime";

/**
 * What one shift tells the next, job by job and by area: what stands, who leads, what is stopped and why, what fell or was
 * not proved, who is inside, what is watched, earthed, lifted, bypassed, kept up in place of a barrier, cut, changed.
 *
 * Words say moments and never spans, so that an item is the same as long as what it says is so. Cost: some twenty queries
 * and a look at each open permit.
 */
export function handoverItems(tx: Tx, now_ms: number, since_ms: number): HandoverItem[] {
  const plant = currentPlant(tx);
  const nameOf = namesOf(tx);
  const open = tx.select().from(jobs).where(eq(jobs.state, "open")).orderBy(asc(jobs.number)).all();
  const ids = open.map(({ id }) => id);
  const standing = tx
    .select({ jobId: jobIsolations.jobId, id: isolations.id, number: isolations.number })
    .from(jobIsolations)
    .innerJoin(isolations, eq(isolations.id, jobIsolations.isolationId))
    .where(and(isAmong(jobIsolations.jobId, ids), ne(isolations.state, "restored")))
    .all();
  const isolationsOf = grouped(standing, ({ jobId }) => jobId);
  const loaded = new Map(
    loadIsolations(tx, [...new Set(standing.map(({ number }) => number))]).map((one) => [one.row.id, one]),
  );
  const isolationIds = [...loaded.keys()];
  const held = heldTags(tx, isolationIds);
  const stale = staleOfAll(
    tx,
    [...loaded.values()].map(({ row }) => row),
    now_ms,
  );
  const today = revisionToday(tx);
  const openPermits = tx
    .select({ number: permits.number, jobId: permits.jobId })
    .from(permits)
    .where(and(isAmong(permits.jobId, ids), notInArray(permits.state, ["closed", "cancelled"])))
    .all();
  const now = new Map(
    permitsNow(
      tx,
      openPermits.map(({ number }) => number),
      now_ms,
    ).map((one) => [one.now.number, one]),
  );
  const permitsOf = grouped(openPermits, ({ jobId }) => jobId);
  const accepted = grouped(
    tx.select().from(deviations).where(isAmong(deviations.jobId, ids)).all(),
    ({ jobId }) => jobId,
  );
  const earths = grouped(
    tx
      .select({ id: earthsOn.isolationId, number: earthsOn.number, place: earthsOn.place })
      .from(earthsOn)
      .where(and(isAmong(earthsOn.isolationId, isolationIds), isNull(earthsOn.offAt)))
      .all(),
    ({ id }) => id,
  );
  const lifted = grouped(
    tx
      .select()
      .from(temporaryRestores)
      .where(
        and(
          isAmong(temporaryRestores.isolationId, isolationIds),
          isAmong(temporaryRestores.state, ["asked", "running"]),
        ),
      )
      .all(),
    ({ isolationId }) => isolationId,
  );
  const items: HandoverItem[] = [];
  const [revision] = tx
    .select({ revision: plantRevisions.revision, at: plantRevisions.importedAt })
    .from(plantRevisions)
    .orderBy(desc(plantRevisions.revision))
    .limit(1)
    .all();
  if (revision && since_ms > 0 && revision.at > since_ms) {
    const words = `The plant register is another one, revision ${revision.revision} of ${siteTime(revision.at)}.`;
    items.push({ area: "", subject: "Plant", words, bold: false });
  }
  for (const { lock, ownerId, state } of tx
    .select()
    .from(forcedRemovals)
    .where(isAmong(forcedRemovals.state, ["opened", "missing", "authorised", "cut"]))
    .all()) {
    const words = `Left on by ${nameOf(ownerId)}; its removal is ${state}.`;
    items.push({ area: "", subject: `Lock ${lock}`, words, bold: true });
  }
  for (const job of open) {
    const [face] = job.job.faces;
    const area = (plant && face && itemAt(plant, face.place)?.area) ?? "";
    const say = (subject: string, words: string, bold = false) => items.push({ area, subject, words, bold });
    const places = job.job.faces.map(({ place }) => place).join(", ");
    say(job.number, `${job.title}, at ${places}; led by ${nameOf(job.holderId)}.`);
    for (const { way, acceptedGrade, measures } of accepted(job.id)) {
      say(job.number, `Accepted below the rules: ${way} with ${acceptedGrade}; ${measures.join(", ")} instead.`);
    }
    for (const { id } of isolationsOf(job.id)) {
      const { row, life } = loaded.get(id)!;
      say(life.number, `${life.state}; locked: ${held(id).join(", ") || "nothing"}.`);
      const openSteps = life.steps.filter((step) => step.phase !== "restore" && !isDone(step)).length;
      const broken = notHeld(asNow(row, openSteps, today));
      if (broken && broken.code !== "not proven") say(life.number, `Not held: ${notHeldClause(broken)}.`, true);
      for (const step of life.steps) {
        for (const { what, reading, unit, at_ms } of openFailures(step)) {
          const seen = reading === null ? what : `${reading} ${unit}`;
          say(life.number, `Not proved: ${stepLabel(step)}, ${seen}, ${siteTime(at_ms)}.`, true);
        }
        if (step.stuck) say(life.number, `Cannot be done as planned: ${stepLabel(step)}, ${step.stuck.words}`, true);
        if (step.begun && !isDone(step)) {
          const { at_ms, watcher } = step.begun;
          const beside = watcher === undefined ? "" : ` ${nameOf(watcher)} watches it: who watches next?`;
          say(life.number, `Runs since ${siteTime(at_ms)}: ${stepLabel(step)}.${beside}`, true);
        }
      }
      for (const proof of stale(id)) say(life.number, `Prove again: ${proof}.`, true);
      for (const { number, place } of earths(id)) say(life.number, `Earth ${number} stands at ${place}.`);
      for (const { number, state, lift } of lifted(id)) {
        const what = state === "running" ? "lifted for a test" : "asked to be lifted for a test";
        say(life.number, `${number}: ${lift.join(", ")} ${what}.`, true);
      }
    }
    for (const { number } of permitsOf(job.id)) {
      const permit = now.get(number)!;
      const { state, validTo_ms, holder, details } = permit.now;
      const until = `until ${siteTime(validTo_ms)}, led by ${nameOf(holder)}`;
      say(number, `${details.kind}, ${state}, ${until}.`, state === "run out" || state === "suspended");
      const { bold, lines } = handedOn(permit);
      for (const words of bold) say(number, words, true);
      for (const words of lines) say(number, words);
    }
  }
  return [...new Map(items.map((one) => [keyOf(one), one])).values()].sort((a, b) => a.area.localeCompare(b.area));
}
