import { and, eq, isNotNull, isNull } from "drizzle-orm";
import { minorFaults } from "../../core/minor/minorIsolation";
import type { PersonId } from "../../core/people/roles";
import type { Plan } from "../../core/plan/plan";
import { stepsOf } from "../../core/procedure/sequence";
import type { MinorFault } from "../../core/refusal/minorFault";
import { isAmong } from "../db/isAmong";
import type { Tx } from "../db/database";
import { holds, isolations, items, jobs, people, steps } from "../db/schema";
import { permitsRequiredOf } from "../hazard/hazardStore";
import { inForce } from "../../core/accounts/appointments";
import { namesOf } from "../people/signIn";
import { itemAt, type CurrentPlant } from "../plant/plantStore";
import { shiftChanges, siteTime } from "../runtime/siteTime";

type Row = typeof jobs.$inferSelect;

/** Why a plan of a job is no minor isolation, by the register, the record and the people of now. Cost: five queries. */
export function minorFaultsOf(tx: Tx, row: Row, plan: Plan, plant: CurrentPlant, now_ms: number): MinorFault[] {
  const holder = tx.select().from(people).where(eq(people.id, row.holderId)).get();
  const devices = plan.points.map(({ device }) => device);
  const places = [...devices, ...row.job.faces.map(({ place }) => place)];
  const held = tx
    .select({ tag: items.tag, isolation: isolations.number })
    .from(holds)
    .innerJoin(items, eq(items.id, holds.itemId))
    .innerJoin(isolations, eq(isolations.id, holds.isolationId))
    .where(and(isAmong(items.tag, devices), isNull(holds.liftedAt)))
    .all();
  const failed = tx
    .select({ isolation: isolations.number, step: steps.step })
    .from(steps)
    .innerJoin(isolations, eq(isolations.id, steps.isolationId))
    .where(isNotNull(steps.failures))
    .all()
    .filter(({ step }) => places.includes(step.subject));
  return minorFaults({
    plan,
    faces: row.job.faces,
    longerThanShift: row.job.longerThanShift,
    steps: stepsOf(plan, plant.graph, row.job.faces),
    itemOf: (place) => itemAt(plant, place) ?? undefined,
    required: permitsRequiredOf(row, plant),
    crew: row.crew,
    holder: {
      id: row.holderId as PersonId,
      roles: holder?.roles ?? [],
      competences: holder === undefined ? [] : inForce(holder, now_ms),
    },
    nameOf: namesOf(tx),
    heldByOthers: (point) => held.filter(({ tag }) => tag === point).map(({ isolation }) => isolation),
    failedBefore: failed.map(({ isolation, step }) => `${step.subject}, under ${isolation}`),
    shiftChanges: shiftChanges(Math.max(now_ms, row.windowFrom) + 1, row.windowTo).map((at_ms) => siteTime(at_ms)),
  });
}
