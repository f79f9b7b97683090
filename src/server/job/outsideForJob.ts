import { eq } from "drizzle-orm";
import type { NotAppointed } from "../../core/refusal/notAppointed";
import type { Tx } from "../db/database";
import { people } from "../db/schema";
import { outsideAppointment } from "../people/appointment";
import { currentPlant } from "../plant/plantStore";
import { areaOfPlaces } from "../plant/spots";

/** That somebody's appointment does not cover the places of a job, or this hour. Cost: one query beside the register. */
export function outsideForJob(tx: Tx, person: string, places: readonly string[], now_ms: number): NotAppointed | null {
  const row = tx.select({ for: people.appointedFor }).from(people).where(eq(people.id, person)).get();
  if (row === undefined) throw new Error(`${person} is nobody`);
  return outsideAppointment(row.for, areaOfPlaces(currentPlant(tx), places), now_ms);
}
