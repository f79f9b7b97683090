import Database from "better-sqlite3";
import { onNewPlant, type OnNewPlant } from "../core/plan/onNewPlant";
import { planSchema } from "../core/plan/planSchema";
import type { Job } from "../core/request/jobFile";
import { plantFrom, type PlantKey } from "./plantFrom";

/** An isolation that was planned on one register, to be judged on another. */
export type Standing = Readonly<{
  isolation: string;
  job: Job;
  before: PlantKey;
  after: PlantKey;
  /** What its locks hang on; null while they are being hung: then what is planned. */
  held: readonly string[] | null;
}>;

/** Each of them judged; the plans are read by a connection of this thread's own. */
export function judgeStanding(all: readonly Standing[]): OnNewPlant[] {
  if (all.length === 0) return [];
  const db = new Database(all[0]!.after.file, { readonly: true, fileMustExist: true });
  try {
    const read = db.prepare("SELECT plan_json FROM isolations WHERE number = ?").pluck();
    return all.map(({ isolation, job, before, after, held }) => {
      const plan = planSchema.parse(JSON.parse(String(read.get(isolation))));
      const isolated = held ?? plan.points.map(({ device }) => device);
      return onNewPlant(plantFrom(before).graph, plantFrom(after).graph, job, plan, isolated);
    });
  } finally {
    db.close();
  }
}
