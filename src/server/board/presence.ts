import { whoIsWhere, type Presence } from "../../core/board/whoIsWhere";
import { database } from "../db/database";
import { openRows } from "../job/openJobs";
import { namesOf } from "../people/signIn";
import { openPermits } from "../permit/openPermits";
import { currentPlant } from "../plant/plantStore";
import { spotOfWork, spotsOf } from "../plant/spots";

/** Everybody who is on, on post or inside now, with their names. Cost: one look at the permits, and two queries. */
export function presence(now_ms: number): readonly (Presence & Readonly<{ name: string }>)[] {
  const db = database();
  const plant = currentPlant(db);
  const spot = spotsOf(plant);
  const jobOf = new Map(openRows(db).map((row) => [row.id, row]));
  const nameOf = namesOf(db);
  const under = openPermits(db, now_ms).map(({ now, row }) => {
    const job = jobOf.get(row.jobId);
    const places = job?.job.faces.map(({ place }) => place) ?? [];
    return { life: now, title: job?.title ?? row.words, area: spotOfWork(plant, spot, now.details, places).area };
  });
  return whoIsWhere(under).map((one) => ({ ...one, name: nameOf(one.person) }));
}
