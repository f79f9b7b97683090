import { eq } from "drizzle-orm";
import { crewLeads, crewRoundUntil_ms, isCrewRoundOpen } from "../../core/crew/crewRound";
import { withoutPlaces } from "../../core/crew/withoutPlaces";
import { missingNow, rollOf } from "../../core/permit/people/roll";
import { peopleOn } from "../../core/permit/record/permitTypes";
import type { PersonId } from "../../core/people/roles";
import { refusalSentence } from "../../core/words/en/refusals";
import { freeLocks } from "../box/locks";
import { database } from "../db/database";
import { jobs } from "../db/schema";
import type { Person } from "../people/signIn";
import { permitNow } from "../permit/permitFacts";
import { decoysFor } from "../permit/decoys";
import { currentPlant } from "../plant/plantStore";
import { crewRoundBy } from "./crewStore";

export type CrewView = NonNullable<ReturnType<typeof crewView>>;

/** A permit's crew at the box, as it stands at this moment, for the screen of this person; null where there is no such permit. */
export function crewView(number: string, person: Person, now_ms: number) {
  const db = database();
  const found = permitNow(db, number, now_ms);
  if (found === null) return null;
  const { row, facts, now: life } = found;
  const job = db.select().from(jobs).where(eq(jobs.id, row.jobId)).get()!;
  const nameOf = facts.nameOf as (id: string) => string;
  const round = crewRoundBy(db, number, person.id);
  const on = new Map(peopleOn(life).map((one) => [one.person as string, one]));
  const crew = [...new Set<string>([life.holder, job.holderId, ...job.crew])].map((id) => id as PersonId);
  const own = freeLocks(db, crew);
  const roll = rollOf(life);
  const missing = missingNow(life);
  const unplaced = (text: string) => withoutPlaces(text, facts.places);
  return {
    number,
    state: life.state,
    // Everybody is asked where the work is: the screen does not say it.
    words: unplaced(row.words),
    hazards: unplaced(row.hazards),
    precautions: unplaced(row.precautions),
    job: found.job(),
    title: unplaced(found.title()),
    validTo_ms: life.validTo_ms,
    lead: life.holder as string,
    leads: crewLeads(life).map(nameOf),
    mayLead: crewLeads(life).includes(person.id),
    round: round && {
      number: round.number,
      isOpen: isCrewRoundOpen(round, now_ms),
      until_ms: crewRoundUntil_ms(round),
    },
    pointsToLock: facts.pointsToLock,
    /** The work's places among others that look like them. */
    places: [...facts.places, ...decoysFor(currentPlant(db), facts.places)].sort(),
    missing: missing && { at_ms: missing.at_ms, names: missing.people.map(nameOf) },
    roll: roll.map((id) => ({ id: id as string, name: nameOf(id) })),
    crew: crew
      .map((id) => {
        const hung = on.get(id);
        const firm = facts.exchangeMissing(id);
        const stranger = facts.notInducted(id);
        return {
          id: id as string,
          name: nameOf(id),
          on: hung ? { lock: Object.values(hung.points).join(" ") || hung.lock, on_ms: hung.on_ms } : null,
          /** Another permit where they are on, on duty or inside, and whether it is of other work. */
          elsewhere: facts.elsewhere(id),
          also: facts.atOtherWork(id),
          /** Why they do not come on whatever they sign; null where nothing is known against it. */
          against:
            firm !== null
              ? refusalSentence({ code: "no exchange", firm })
              : stranger !== null
                ? `${stranger.firm}: this site was not shown to them, or too long ago.`
                : null,
          own: own(id),
        };
      })
      .sort((a, b) => (a.name < b.name ? -1 : 1)),
  };
}
