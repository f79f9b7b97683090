import { eq } from "drizzle-orm";
import type { Job } from "../../core/request/jobFile";
import { jobHazardsSchema } from "../../core/hazard/jobHazards";
import type { PersonId } from "../../core/people/roles";
import type { PermitInPlace } from "../../core/permit/around/crossChecks";
import type { PermitDetails } from "../../core/permit/kinds/details";
import { inside } from "../../core/permit/people/entries";
import { placeOf } from "../../core/permit/around/hotWorkZone";
import type { LogEntry } from "../../core/permit/record/permitLog";
import { peopleOn } from "../../core/permit/record/permitTypes";
import { onPost } from "../../core/permit/people/posts";
import { isAmong, isNoneOf } from "../db/isAmong";
import type { Tx } from "../db/database";
import { isolations, jobs, permits } from "../db/schema";
import { heldTags } from "../box/heldTags";
import { planName, planParts } from "../isolation/planParts";
import { loadPermits, type StoredPermit } from "./permitStore";
import { currentPlant, itemAt, type CurrentPlant } from "../plant/plantStore";

export type InPlace = Readonly<{
  number: string;
  /** It was issued: others have to reckon with it. A draft only looks at the others. */
  isOpen: boolean;
  permit: PermitInPlace;
  log: readonly LogEntry[];
}>;

/**
 * Every permit that is not over, with where it is and who is there; those that were `loaded` before are not read again.
 * Cost: a handful of queries, however many.
 */
export function permitsInPlace(tx: Tx, loaded: readonly StoredPermit[] = []): InPlace[] {
  const plant = currentPlant(tx);
  const open = tx
    .select({ number: permits.number, job: jobs })
    .from(permits)
    .innerJoin(jobs, eq(jobs.id, permits.jobId))
    .where(isNoneOf(permits.state, ["closed", "cancelled", "work done"]))
    .all();
  const jobOf = new Map(open.map(({ number, job }) => [number, job]));
  const known = new Set(loaded.map(({ row }) => row.number));
  const missing = [...jobOf.keys()].filter((number) => !known.has(number));
  const stored = [...loaded.filter(({ row }) => jobOf.has(row.number)), ...loadPermits(tx, missing)].sort((a, b) =>
    a.row.number < b.row.number ? -1 : 1,
  );
  const spotOf = spotsOf(plant);
  const standsOn = stands(tx, [...new Set(stored.flatMap(({ isolationIds }) => isolationIds))]);
  return stored.map(({ life, isolationIds }) => {
    const job = jobOf.get(life.number)!;
    const hazards = job.hazards === "" ? null : jobHazardsSchema.parse(JSON.parse(job.hazards));
    const lifts = hazards?.conditions?.lifts ?? [];
    return {
      number: life.number,
      isOpen: !["draft", "checked", "authorised"].includes(life.state),
      log: life.log,
      permit: {
        number: life.number,
        job: job.number,
        details: life.details,
        ...standsOn(isolationIds),
        faces: facesOf(spotOf, job.job, life.details),
        people: [
          ...new Set<PersonId>(
            [...peopleOn(life), ...onPost(life.log), ...inside(life.log)].map(({ person }) => person),
          ),
        ],
        lifts: lifts.map(({ what, place }) => ({ what, ...spotOf(place) })),
      },
    };
  });
}

type SpotOf = (place: string) => Readonly<{ x_m: number; y_m: number; level_m: number; known: boolean }>;

function whereOf(details: Extract<PermitDetails, { x_m: number }>) {
  const { x_m, y_m } = details;
  return "level_m" in details ? { x_m, y_m, level_m: details.level_m } : { x_m, y_m };
}

function facesOf(spotOf: SpotOf, job: Job, details: PermitDetails): PermitInPlace["faces"] {
  return job.faces.map(({ place, how }) => {
    const { known, ...spot } = spotOf(place);
    // A permit that says where it is knows better than the register where its item stands.
    const at = "x_m" in details ? { ...spot, ...whereOf(details), known: true } : { ...spot, known };
    return { tag: place, how, ...at };
  });
}

function spotsOf(plant: CurrentPlant | null): SpotOf {
  return (place) => {
    const item = plant && itemAt(plant, place);
    const spot = item && plant ? placeOf(item, plant.plant.areas) : null;
    return spot === null ? { x_m: 0, y_m: 0, level_m: 0, known: false } : { ...spot, known: true };
  };
}

function stands(
  tx: Tx,
  ids: readonly string[],
): (isolationIds: readonly string[]) => Pick<PermitInPlace, "isolations" | "loses"> {
  if (ids.length === 0) return () => ({ isolations: [], loses: [] });
  const rows = tx
    .select({ id: isolations.id, number: isolations.number, planName })
    .from(isolations)
    .where(isAmong(isolations.id, ids))
    .all();
  const heldBy = heldTags(tx, ids);
  const partsOf = planParts(tx, rows);
  const of = new Map(rows.map(({ id, number }) => [id, { number, loses: [...partsOf(id).dark, ...heldBy(id)] }]));
  return (isolationIds) => {
    const own = isolationIds.flatMap((id) => of.get(id) ?? []);
    return { isolations: own.map(({ number }) => number), loses: own.flatMap(({ loses }) => loses) };
  };
}
