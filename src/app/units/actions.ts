"use server";

import { eq } from "drizzle-orm";
import { revalidatePath } from "next/cache";
import { SYSTEMS } from "@/core/units/units";
import { database } from "@/server/db/database";
import { people } from "@/server/db/schema";
import { currentPerson } from "@/server/people/session";

/** Which units the signed-in person reads from now on. A preference, not an act: it goes into no ledger. */
export async function chooseUnits(form: FormData): Promise<void> {
  const person = await currentPerson();
  const units = SYSTEMS.find((system) => system === form.get("units"));
  if (person === null || units === undefined) return;
  database().update(people).set({ units }).where(eq(people.id, person.id)).run();
  revalidatePath("/", "layout");
}
