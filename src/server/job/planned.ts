import { canonicalJson } from "../../core/ledger/canonicalJson";
import type { Comparison } from "../../core/plan/compare";
import type { Plan } from "../../core/plan/plan";
import type { Read } from "../../core/plant/problem";
import type { Job } from "../../core/request/jobFile";
import { PrepareAgain } from "../act/act";
import type { Db, Tx } from "../db/database";
import { plantKey } from "../plant/plantStore";
import { keptAnswers } from "../runtime/keptSome";
import { heavy } from "../runtime/workers";

/** A plan with what it was made from: a revision of the register and a job. */
export type Planned = Readonly<{ of: string; made: Read<Plan> }>;

const KEPT = 60;
const plans = keptAnswers<string, Read<Plan>>(KEPT);
const comparisons = keptAnswers<string, Read<Readonly<{ comparison: Comparison; plans: readonly Plan[] }>>>(KEPT);

const nameOf = (hash: string, job: Job) => `${hash} ${canonicalJson(JSON.parse(JSON.stringify(job)))}`;

/** A plan is a pure function of the register and the job: made once, in another thread. */
export function planned(db: Db, revision: number, job: Job): Promise<Read<Plan>> {
  const plant = plantKey(db, db.$client.name, revision);
  return plans(nameOf(plant.hash, job), () => heavy("plan", { plant, job }));
}

/** The plans to choose from, laid side by side; likewise. */
export function compared(db: Db, revision: number, job: Job) {
  const plant = plantKey(db, db.$client.name, revision);
  return comparisons(nameOf(plant.hash, job), () => heavy("compare", { plant, job }));
}

/** For an act: made before its transaction, from what is there now. */
export async function plannedFor(db: Db, revision: number, job: Job): Promise<Planned> {
  const { hash } = plantKey(db, db.$client.name, revision);
  return { of: nameOf(hash, job), made: await planned(db, revision, job) };
}

/** Within the transaction: the plan, if it is still of this register and this job. */
export function stillPlanned(tx: Tx, prepared: Planned | null, revision: number, job: Job): Read<Plan> {
  const { hash } = plantKey(tx, "", revision);
  if (prepared === null || prepared.of !== nameOf(hash, job)) throw new PrepareAgain();
  return prepared.made;
}
