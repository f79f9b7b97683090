import { desc, eq } from "drizzle-orm";
import { decisionsOf, jobHazardsSchema, NO_HAZARDS } from "../../core/hazard/jobHazards";
import type { ProcedureContent } from "../../core/library/procedure";
import type { Competence } from "../../core/people/roles";
import { byNumber } from "../db/byNumber";
import type { Tx } from "../db/database";
import { isolations, jobIsolations, jobs, permits, steps } from "../db/schema";

/**
 * What a closed job says for the next time: as it was asked, isolated, decided and permitted. Null where nothing of it was
 * isolated. Decisions keep who made them.
 */
export function contentOf(tx: Tx, job: typeof jobs.$inferSelect): ProcedureContent | null {
  const isolation = tx
    .select({ id: isolations.id, number: isolations.number, plan: isolations.plan, inputs: isolations.inputs })
    .from(isolations)
    .innerJoin(jobIsolations, eq(jobIsolations.isolationId, isolations.id))
    .where(eq(jobIsolations.jobId, job.id))
    .orderBy(desc(isolations.approvedAt))
    .limit(1)
    .get();
  if (isolation === undefined) return null;
  const hazards = job.hazards === "" ? NO_HAZARDS : jobHazardsSchema.parse(JSON.parse(job.hazards));
  const trades = tx
    .select({ step: steps.step })
    .from(steps)
    .where(eq(steps.isolationId, isolation.id))
    .all()
    .flatMap(({ step }): Competence[] => [
      ...(step.competence === null ? [] : [step.competence]),
      ...(step.highVoltage ? (["high-voltage"] as const) : []),
    ]);
  const written = tx
    .select()
    .from(permits)
    .where(eq(permits.jobId, job.id))
    .orderBy(desc(byNumber(permits.number)))
    .all();
  // The last of each kind that was not given up: days that went on took it over.
  const kinds = new Map(
    written
      .filter(({ state }) => state !== "cancelled")
      .reverse()
      .map((row) => [row.kind, row] as const),
  );
  return {
    job: isolation.inputs,
    work: job.work,
    isolation: isolation.number,
    points: isolation.plan.points.map(({ device }) => device),
    trades: [...new Set(trades)],
    hazards: [...decisionsOf(hazards).values()],
    tools: hazards.conditions?.tools ?? [],
    permits: [...kinds.values()].map((row) => ({
      words: row.words,
      hazards: row.hazards,
      precautions: row.precautions,
      details: row.details,
    })),
  };
}
