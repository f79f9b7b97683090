import { and, asc, eq, inArray, isNull, notInArray, sql } from "drizzle-orm";
import type { Plan } from "../../core/plan/plan";
import { jobHazardsSchema } from "../../core/hazard/jobHazards";
import { jobSchema } from "../../core/request/jobFile";
import type { PersonId } from "../../core/people/roles";
import type { PermitInPlace } from "../../core/permit/around/crossChecks";
import type { PermitDetails } from "../../core/permit/kinds/details";
import { inside } from "../../core/permit/people/entries";
import { placeOf } from "../../core/permit/around/hotWorkZone";
import type { LogEntry } from "../../core/permit/record/permitLog";
import { peopleOn } from "../../core/permit/record/permitTypes";
import { onPost } from "../../core/permit/people/posts";
import type { Tx } from "../db/database";
import { holds, isolations, items, jobs, permits } from "../db/schema";
import { loadPermit } from "./permitStore";
import { currentPlant, type CurrentPlant } from "../plant/plantStore";

export type InPlace = Readonly<{
  number: string;
  /** It was issued: others have to reckon with it. A draft only looks at the others. */
  isOpen: boolean;
  permit: PermitInPlace;
  log: readonly LogEntry[];
}>;

/** Every permit that is not over, with where it is and who is there. Cost: a handful of look-ups for each. */
export function permitsInPlace(tx: Tx): InPlace[] {
  const plant = currentPlant(tx);
  return tx
    .select({ number: permits.number, job: jobs })
    .from(permits)
    .innerJoin(jobs, eq(jobs.id, permits.jobId))
    .where(notInArray(permits.state, ["closed", "cancelled", "work done"]))
    .orderBy(asc(permits.number))
    .all()
    .map(({ number, job }) => {
      const { life, isolationIds } = loadPermit(tx, number)!;
      const hazards = job.hazards === "" ? null : jobHazardsSchema.parse(JSON.parse(job.hazards));
      const lifts = hazards?.conditions?.lifts ?? [];
      return {
        number,
        isOpen: !["draft", "checked", "authorised"].includes(life.state),
        log: life.log,
        permit: {
          number,
          job: job.number,
          details: life.details,
          ...standsOn(tx, isolationIds),
          faces: facesOf(plant, job.job, life.details),
          people: [
            ...new Set<PersonId>(
              [...peopleOn(life), ...onPost(life.log), ...inside(life.log)].map(({ person }) => person),
            ),
          ],
          lifts: lifts.map(({ what, place }) => ({ what, ...spotOf(plant, place) })),
        },
      };
    });
}

function facesOf(plant: CurrentPlant | null, job: string, details: PermitDetails): PermitInPlace["faces"] {
  return jobSchema.parse(JSON.parse(job)).faces.map(({ place, how }) => {
    const { known, ...spot } = spotOf(plant, place);
    // A permit that says where it is knows better than the register where its item stands.
    const at = "x_m" in details ? { x_m: details.x_m, y_m: details.y_m, known: true } : { ...spot, known };
    return { tag: place, how, ...at };
  });
}

function spotOf(plant: CurrentPlant | null, place: string) {
  const item = plant?.plant.items.find(({ tag }) => place === tag || place.startsWith(`${tag}.`));
  const spot = item && plant ? placeOf(item, plant.plant.areas) : null;
  return { x_m: spot?.x_m ?? 0, y_m: spot?.y_m ?? 0, known: spot !== null };
}

function standsOn(tx: Tx, isolationIds: readonly string[]): Pick<PermitInPlace, "isolations" | "loses"> {
  if (isolationIds.length === 0) return { isolations: [], loses: [] };
  const rows = tx
    .select({ number: isolations.number, dark: sql<string>`json_extract(${isolations.plan}, '$.goesDark')` })
    .from(isolations)
    .where(inArray(isolations.id, [...isolationIds]))
    .all();
  const held = tx
    .select({ tag: items.tag })
    .from(holds)
    .innerJoin(items, eq(items.id, holds.itemId))
    .where(and(inArray(holds.isolationId, [...isolationIds]), isNull(holds.liftedAt)))
    .all();
  const dark = rows.flatMap((row) => (JSON.parse(row.dark) as Plan["goesDark"]).map(({ tag }) => tag));
  return { isolations: rows.map(({ number }) => number), loses: [...dark, ...held.map(({ tag }) => tag)] };
}
