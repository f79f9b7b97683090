import { desc, eq } from "drizzle-orm";
import { jobHazardsSchema, NO_HAZARDS, openHazards, type Hazard, type JobHazards } from "../../core/hazard/jobHazards";
import { permitsRequired, type PermitRequired } from "../../core/hazard/permitsRequired";
import { nearestHelp, proposeHazards, unlikelySources, type HazardFacts } from "../../core/hazard/proposals";
import { type Job } from "../../core/request/jobFile";
import type { Area } from "../../core/plant/plant";
import { profileOf } from "../../core/requirement/profiles";
import { wayToMakeHarmless } from "../../core/energy/storedEnergy";
import { placeName } from "../../core/trace/stateGraph";
import { LEAK_TIER, leaksTo } from "../../core/trace/leaks";
import { arrivalsOf, type Arrival } from "../../core/trace/trace";
import { workFaces } from "../../core/trace/workFaces";
import type { Tx } from "../db/database";
import { isolations, jobIsolations, jobs } from "../db/schema";
import { keptSome } from "../runtime/keptSome";
import { currentPlant, itemAt, plantAt, type CurrentPlant } from "../plant/plantStore";

export type JobHazardsNow = Readonly<{
  begun: boolean;
  hazards: JobHazards;
  proposed: readonly Hazard[];
  required: readonly PermitRequired[];
  open: readonly string[];
  help: ReturnType<typeof nearestHelp>;
  area: Area | null;
  /** Sources from which no hazard was made: too unlikely to be one. */
  unlikely: readonly string[];
}>;

type Row = typeof jobs.$inferSelect;
type Traced = Omit<HazardFacts, "profile" | "conditions">;

/** A trace is a pure function of the plant and the job; every look at a permit asks for it. */
const traced = keptSome<string, Traced>(2000);
/** So is what is left to decide and which permits are required, of those and of what was decided. */
const asked = keptSome<string, Pick<JobHazardsNow, "open" | "required">>(4000);

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
  return plant === null ? null : hazardsOn(row, plant);
}

/** The same, for a row and a register at hand. */
export function hazardsOn(row: Row, plant: CurrentPlant): JobHazardsNow {
  const hazards = row.hazards === "" ? NO_HAZARDS : jobHazardsSchema.parse(JSON.parse(row.hazards));
  const job = row.job;
  const found = tracedFor(job, plant);
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
    unlikely: unlikelySources(facts),
  };
}

/** What a job's trace says of its work locations and of what reaches them. Worked out once for a job and a register. */
export function tracedFor(job: Job, plant: CurrentPlant): Traced {
  return traced(`${plant.revision} ${JSON.stringify(job)}`, () => traceOf(job, plant));
}

function traceOf(job: Job, plant: CurrentPlant): Traced {
  // What arrives and how likely, no routes: this is asked while everybody waits.
  const faces = workFaces(plant.graph, job, "job");
  const found = faces.ok ? arrivalsOf(plant.graph, faces.value) : { feeding: [], stored: [] };
  const nameOf = ({ source }: Arrival) => placeName(plant.graph, source.vertex);
  return {
    faces: job.faces.map(({ place, how }) => {
      const item = itemAt(plant, place);
      return { place, how, item, area: plant.plant.areas.find(({ name }) => name === item?.area) ?? null };
    }),
    arriving: [
      ...found.feeding.map((one) => ({ source: nameOf(one), carrier: one.arrives, face: one.face, tier: one.tier })),
      // A tube leaks seldom, and no less likely than a machine is turned.
      ...(faces.ok ? leaksTo(plant.graph, faces.value) : []).map(({ source, carrier, face }) => ({
        source: placeName(plant.graph, source.vertex),
        carrier,
        face,
        tier: LEAK_TIER,
      })),
    ],
    stored: found.stored
      .filter(({ tier }) => tier < 3)
      .map((one) => ({
        source: nameOf(one),
        carrier: one.arrives,
        face: one.face,
        harmless: wayToMakeHarmless(one.source.source.stored),
      })),
  };
}

export function saveJobHazards(tx: Tx, number: string, hazards: JobHazards): void {
  tx.update(jobs)
    .set({ hazards: JSON.stringify(hazards) })
    .where(eq(jobs.number, number))
    .run();
}

/** What is left to decide; null when nobody has begun, or there is no register. */
export function hazardsOpenOf(row: Row, plant: CurrentPlant | null): readonly string[] | null {
  return plant === null || row.hazards === "" ? null : askedOf(row, plant).open;
}

/** The kinds of permit that the job requires, as far as it is known what it is; null when there is no register. */
export function permitsRequiredOf(row: Row, plant: CurrentPlant | null): readonly PermitRequired[] | null {
  return plant === null ? null : askedOf(row, plant).required;
}

function askedOf(row: Row, plant: CurrentPlant): Pick<JobHazardsNow, "open" | "required"> {
  return asked(`${plant.revision} ${JSON.stringify(row.job)} ${row.hazards}`, () => {
    const { open, required } = hazardsOn(row, plant);
    return { open, required };
  });
}
