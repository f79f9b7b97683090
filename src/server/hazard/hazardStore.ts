import { desc, eq } from "drizzle-orm";
import { jobHazardsSchema, NO_HAZARDS, openHazards, type Hazard, type JobHazards } from "../../core/hazard/jobHazards";
import { permitsRequired, type PermitRequired } from "../../core/hazard/permitsRequired";
import { nearestHelp, proposeHazards, type HazardFacts } from "../../core/hazard/proposals";
import { jobSchema } from "../../core/request/jobFile";
import type { Area } from "../../core/plant/plant";
import { profileOf } from "../../core/requirement/profiles";
import { trace } from "../../core/trace/trace";
import type { Tx } from "../db/database";
import { isolations, jobIsolations, jobs } from "../db/schema";
import { currentPlant, plantAt } from "../plant/plantStore";

export type JobHazardsNow = Readonly<{
  begun: boolean;
  hazards: JobHazards;
  proposed: readonly Hazard[];
  required: readonly PermitRequired[];
  open: readonly string[];
  help: ReturnType<typeof nearestHelp>;
  area: Area | null;
}>;

/** A trace is a pure function of the plant and the job; a permit's facts ask for it at every look. */
const traces = new Map<string, Omit<HazardFacts, "profile" | "conditions">>();
const TRACES_KEPT = 40;

/** A job's hazards as they stand: what is proposed from today's register or the one it was planned on; null without either. */
export function jobHazards(tx: Tx, number: string): JobHazardsNow | null {
  const row = tx.select().from(jobs).where(eq(jobs.number, number)).get();
  if (row === undefined) return null;
  const standing = tx
    .select({ revision: isolations.plantRevision })
    .from(jobIsolations)
    .innerJoin(isolations, eq(isolations.id, jobIsolations.isolationId))
    .where(eq(jobIsolations.jobId, row.id))
    .orderBy(desc(isolations.approvedAt), desc(isolations.number))
    .limit(1)
    .get();
  const plant = standing ? plantAt(tx, standing.revision) : currentPlant(tx);
  if (plant === null) return null;
  const job = jobSchema.parse(JSON.parse(row.job));
  const key = `${plant.revision} ${row.job}`;
  let found = traces.get(key);
  if (found === undefined) {
    const traced = trace(plant.graph, job);
    found = {
      faces: job.faces.map(({ place, how }) => {
        const item = plant.plant.items.find(({ tag }) => place === tag || place.startsWith(`${tag}.`)) ?? null;
        return { place, how, item, area: plant.plant.areas.find(({ name }) => name === item?.area) ?? null };
      }),
      arriving: traced.ok
        ? traced.value.sources.map(({ source, arrives, face }) => ({ source, carrier: arrives, face }))
        : [],
      stored: traced.ok
        ? traced.value.stored.map(({ source, arrives, face, harmless }) => ({
            source,
            carrier: arrives,
            face,
            harmless,
          }))
        : [],
    };
    traces.set(key, found);
    if (traces.size > TRACES_KEPT) traces.delete(traces.keys().next().value!);
  }
  const hazards = row.hazards === "" ? NO_HAZARDS : jobHazardsSchema.parse(JSON.parse(row.hazards));
  const facts: HazardFacts = { ...found, profile: profileOf(job.profile), conditions: hazards.conditions };
  const proposed = proposeHazards(facts);
  const area = found.faces[0]?.area ?? null;
  return {
    begun: row.hazards !== "",
    hazards,
    proposed,
    required: permitsRequired(facts),
    open: openHazards(hazards, proposed),
    help: nearestHelp(area),
    area,
  };
}

export function saveJobHazards(tx: Tx, number: string, hazards: JobHazards): void {
  tx.update(jobs)
    .set({ hazards: JSON.stringify(hazards) })
    .where(eq(jobs.number, number))
    .run();
}

/** What is left to decide; null when nobody has begun. */
export function hazardsOpenOf(tx: Tx, number: string): readonly string[] | null {
  const now = jobHazards(tx, number);
  return now === null || !now.begun ? null : now.open;
}
