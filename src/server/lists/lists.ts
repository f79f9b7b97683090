import { Temporal } from "temporal-polyfill";
import { asc, desc, eq, isNull } from "drizzle-orm";
import { inspectionDue_ms } from "../../core/library/procedureLife";
import { mayRead, type Reader } from "../../core/people/mayRead";
import type { Table } from "../../core/plant/writePlant";
import type { Db } from "../db/database";
import {
  holds,
  isolations,
  items,
  jobIsolations,
  jobs,
  lockBoxes,
  people,
  permits,
  personalLocks,
  standingLocks,
  stock,
} from "../db/schema";
import { allGear } from "../gear/gearStore";
import { allVersions } from "../library/procedureStore";
import { openPermits } from "../permit/openPermits";
import { namesOf } from "../people/signIn";
import { siteTimeZone } from "../runtime/siteTime";

export const LISTS = ["permits", "jobs", "locks", "gear", "stores", "people", "procedures"] as const;
export type ListName = (typeof LISTS)[number];

export const mayTakeOut = (list: ListName, reader: Reader): boolean =>
  mayRead(list === "people" ? "people as a file" : "files", reader);

/**
 * A register as a table, as it stands at this moment, headings first; times by the site's clock, year-month-day first, so that a
 * spreadsheet sorts them. Cost: linear in the list.
 */
export function listTable(tx: Db, list: ListName, now_ms: number): Table {
  const nameOf = namesOf(tx);
  const at = whenIn(siteTimeZone());
  const name = (id: string | null) => (id === null ? "" : nameOf(id));
  switch (list) {
    case "permits": {
      // The clock may have moved what is open.
      const states = new Map(openPermits(tx, now_ms).map(({ now }) => [now.number, now.state]));
      return [
        [
          "permit",
          "kind",
          "state",
          "job",
          "title",
          "work",
          "holder",
          "issuer",
          "valid from",
          "valid to",
          "goes on from",
        ],
        ...tx
          .select({ permit: permits, job: jobs.number, title: jobs.title })
          .from(permits)
          .innerJoin(jobs, eq(jobs.id, permits.jobId))
          .orderBy(desc(permits.number))
          .all()
          .map(({ permit, job, title }) => [
            permit.number,
            permit.kind,
            states.get(permit.number) ?? permit.state,
            job,
            title,
            permit.words,
            name(permit.holderId),
            name(permit.issuerId),
            at(permit.validFrom),
            at(permit.validTo),
            permit.previous ?? "",
          ]),
      ];
    }
    case "jobs": {
      const isolationsOf = new Map<string, string[]>();
      for (const { job, isolation } of tx
        .select({ job: jobIsolations.jobId, isolation: isolations.number })
        .from(jobIsolations)
        .innerJoin(isolations, eq(isolations.id, jobIsolations.isolationId))
        .orderBy(asc(isolations.number))
        .all())
        isolationsOf.set(job, [...(isolationsOf.get(job) ?? []), isolation]);
      return [
        ["job", "title", "work", "work locations", "window from", "window to", "holder", "crew", "isolations"],
        ...tx
          .select()
          .from(jobs)
          .orderBy(desc(jobs.number))
          .all()
          .map((job) => [
            job.number,
            job.title,
            job.work,
            job.job.faces.map(({ place, how }) => `${place} (${how.join(", ")})`).join("; "),
            at(job.windowFrom),
            at(job.windowTo),
            name(job.holderId),
            job.crew.map(nameOf).join("; "),
            (isolationsOf.get(job.id) ?? []).join("; "),
          ]),
      ];
    }
    case "locks":
      return [
        ["lock", "hangs on", "for", "hung by", "hung at", "its key"],
        ...tx
          .select({ hold: holds, tag: items.tag, isolation: isolations.number })
          .from(holds)
          .innerJoin(items, eq(items.id, holds.itemId))
          .innerJoin(isolations, eq(isolations.id, holds.isolationId))
          .where(isNull(holds.liftedAt))
          .orderBy(asc(holds.lock))
          .all()
          .map(({ hold, tag, isolation }) => [
            hold.lock,
            tag,
            isolation,
            name(hold.lockedBy),
            at(hold.lockedAt),
            hold.keyAt === "box" ? "in the box" : name(hold.keyBy),
          ]),
        ...tx
          .select({ lock: personalLocks, box: lockBoxes.number, permit: permits.number })
          .from(personalLocks)
          .innerJoin(lockBoxes, eq(lockBoxes.id, personalLocks.boxId))
          .innerJoin(permits, eq(permits.id, personalLocks.permitId))
          .where(isNull(personalLocks.offAt))
          .orderBy(asc(personalLocks.lock))
          .all()
          .map(({ lock, box, permit }) => [
            lock.lock,
            lock.point === "" ? box : lock.point,
            permit,
            name(lock.personId),
            at(lock.onAt),
            name(lock.personId),
          ]),
        ...tx
          .select({ lock: standingLocks, box: lockBoxes.number })
          .from(standingLocks)
          .innerJoin(lockBoxes, eq(lockBoxes.id, standingLocks.boxId))
          .where(isNull(standingLocks.offAt))
          .orderBy(asc(standingLocks.lock))
          .all()
          .map(({ lock, box }) => [
            lock.lock,
            box,
            "over all",
            name(lock.personId),
            at(lock.onAt),
            name(lock.personId),
          ]),
      ];
    case "gear":
      return [
        ["kind", "number", "owner", "key", "in date until", "rating, V", "may be off by", "withdrawn", "with job"],
        ...allGear(tx).map((one) => [
          one.kind,
          one.number,
          name(one.owner),
          one.key ?? "",
          one.inDateUntil_ms === null ? "" : at(one.inDateUntil_ms),
          one.rating_V ?? "",
          one.error ?? "",
          one.withdrawn ? "yes" : "no",
          one.withJob ?? "",
        ]),
      ];
    case "stores":
      return [
        ["thing", "size", "count", "counted by", "counted at"],
        ...tx
          .select()
          .from(stock)
          .orderBy(asc(stock.thing), asc(stock.size))
          .all()
          .map((one) => [one.thing, one.size, one.count, name(one.countedBy), at(one.countedAt)]),
      ];
    case "people":
      return [
        ["name", "signs in as", "roles", "competences", "until", "firm", "inducted until", "may sign in"],
        ...tx
          .select()
          .from(people)
          .orderBy(asc(people.name))
          .all()
          .map((one) => [
            one.name,
            one.signIn,
            one.roles.join("; "),
            one.competences.join("; "),
            one.competences
              .flatMap((competence) => {
                const until_ms = one.appointed[competence]?.until_ms ?? null;
                return until_ms === null ? [] : [`${competence} ${dayOf(until_ms)}`];
              })
              .join("; "),
            one.firm,
            one.induction === null ? "" : dayOf(one.induction.until_ms),
            one.active ? "yes" : "no",
          ]),
      ];
    case "procedures":
      return [
        ["procedure", "title", "equipment", "version", "state", "written by", "inspection due"],
        ...allVersions(tx).map(({ life, title, equipment }) => {
          const due_ms = inspectionDue_ms(life);
          return [
            life.number,
            title,
            equipment,
            life.version,
            life.state,
            name(life.writtenBy),
            due_ms === null ? "" : at(due_ms),
          ];
        }),
      ];
  }
}

/** The day of this moment, for a file's name. */
export const dayOf = (ms: number): string => whenIn(siteTimeZone())(ms).slice(0, 10);

/** 2026-11-29 14:05, by this zone's clock. */
function whenIn(timeZone: string): (ms: number) => string {
  return (ms) => {
    const then = Temporal.Instant.fromEpochMilliseconds(ms).toZonedDateTimeISO(timeZone).toPlainDateTime();
    return then.toString({ smallestUnit: "minute" }).replace("T", " ");
  };
}
