import { and, eq, inArray } from "drizzle-orm";
import { planFault, unjudged, verdictOf } from "../../core/isolation/heldNow";
import { isSame } from "../../core/plant/registerChange";
import { notHeldClause } from "../../core/words/en/notHeld";
import type { RegisterLook } from "../../workers/compareRegisters";
import type { StagedRegister } from "../../workers/stageRegister";
import type { Db } from "../db/database";
import { isolations, jobIsolations, jobs, permits } from "../db/schema";
import { judgeAll } from "../isolation/verdicts";
import { revisionToday, toJudge } from "../isolation/verdictStore";
import { heavy } from "../runtime/workers";
import { plantKey } from "./plantStore";

/** What a register would do to one isolation that people count on. */
export type WorkLook = Readonly<{
  isolation: string;
  jobs: readonly Readonly<{ number: string; title: string }>[];
  /** Permits that work goes on under now: they would stop where it does not hold. */
  live: readonly string[];
  holds: boolean;
  /** Why not, as a clause; "" where it holds. */
  why: string;
}>;

export type Look = RegisterLook &
  Readonly<{
    /** It says what today's says. */
    same: boolean;
    /** The revision of today, 0 where there is none; and the register's hash: an import names both. */
    on: number;
    hash: string;
    work: readonly WorkLook[];
  }>;

/**
 * What a register that was staged would change if it became today's, in the register and in what people count on. Judged as an import
 * judges it; changes nothing. Cost: that of an import without its writing, in other threads.
 */
export async function lookAtRegister(db: Db, { hash }: StagedRegister): Promise<Look> {
  const on = revisionToday(db);
  const file = db.$client.name;
  const after = { file, hash };
  const look = await heavy("compare registers", { before: on === 0 ? null : plantKey(db, file, on), after });
  const all = toJudge(db, on + 1);
  const same = isSame(look.change);
  const judged = same ? new Map<string, never>() : await judgeAll(db, all, after);
  const work = same
    ? []
    : all.map(({ id, isolation, planned, name }): WorkLook => {
        const found = judged.get(name);
        const verdict = found === undefined ? unjudged(on + 1) : verdictOf(on + 1, found);
        const fault = planFault({ number: isolation, planned, today: on + 1, verdict });
        return {
          isolation,
          ...workOn(db, id),
          holds: fault === null,
          why: fault === null ? "" : notHeldClause(fault),
        };
      });
  return { ...look, same, on, hash, work: work.sort((a, b) => Number(a.holds) - Number(b.holds)) };
}

/** The jobs on an isolation, and their permits under which work goes on. Cost: two queries. */
function workOn(db: Db, isolationId: string): Pick<WorkLook, "jobs" | "live"> {
  const found = db
    .select({ id: jobs.id, number: jobs.number, title: jobs.title })
    .from(jobs)
    .innerJoin(jobIsolations, eq(jobIsolations.jobId, jobs.id))
    .innerJoin(isolations, eq(isolations.id, jobIsolations.isolationId))
    .where(eq(isolations.id, isolationId))
    .orderBy(jobs.number)
    .all();
  const ids = found.map(({ id }) => id);
  const live = db
    .select({ number: permits.number })
    .from(permits)
    .where(and(inArray(permits.jobId, ids), eq(permits.state, "live")))
    .orderBy(permits.number)
    .all();
  return {
    jobs: found.map(({ number, title }) => ({ number, title })),
    live: live.map(({ number }) => number),
  };
}
