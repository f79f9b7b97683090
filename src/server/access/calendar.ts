import ical, { ICalCalendarMethod } from "ical-generator";
import { dueOfPermit } from "../../core/board/dueList";
import { CALENDAR_AHEAD_MS, entriesFor, type CalendarEntry } from "../../core/calendar/entries";
import { inspectionDue_ms } from "../../core/library/procedureLife";
import type { PersonId } from "../../core/people/roles";
import { peopleOn } from "../../core/permit/record/permitTypes";
import type { Db } from "../db/database";
import { people } from "../db/schema";
import { allGear } from "../gear/gearStore";
import { openJobs } from "../job/openJobs";
import { allVersions } from "../library/procedureStore";
import { openPermits } from "../permit/openPermits";
import { siteTime } from "../runtime/siteTime";

/**
 * Everything with a time that is still to come or goes on: permits and what falls due under them, windows of jobs, looks at
 * isolations that stay, inspections of procedures, dates of gear, ends of competences. Cost: that of the board.
 */
export function calendarEntries(db: Db, now_ms: number): CalendarEntry[] {
  return [...ofPermits(db, now_ms), ...ofJobs(db, now_ms), ...ofProcedures(db), ...ofGear(db), ...ofPeople(db)];
}

function ofPermits(db: Db, now_ms: number): CalendarEntry[] {
  return openPermits(db, now_ms).flatMap(({ now, facts, title }): CalendarEntry[] => {
    const path = `/permits/${now.number}`;
    const own = [now.holder, ...(now.issuer === null ? [] : [now.issuer]), ...peopleOn(now).map((on) => on.person)];
    const valid: CalendarEntry = {
      id: `${now.number} valid`,
      // A calendar is old when it is looked at: what is no permit to work yet, or no more, must not look like one.
      words: `${now.number} ${now.details.kind}, ${now.state}: ${title()}`,
      from_ms: now.validFrom_ms,
      to_ms: now.validTo_ms,
      path,
      people: [...new Set(own)],
    };
    const due = dueOfPermit({ permit: now, facts, now_ms }, CALENDAR_AHEAD_MS).flatMap((item): CalendarEntry[] => {
      const words = DUE[item.what];
      if (words === undefined || item.due_ms === null) return [];
      const id = `${now.number} ${item.what} ${item.at}`.trim();
      const at = { from_ms: item.due_ms, to_ms: null, path, people: item.people };
      return [{ id, words: `${now.number}: ${words}`, ...at }];
    });
    return [valid, ...due];
  });
}

/** What falls due at a time that is known before; that a permit ends its own entry says. */
const DUE: Readonly<Partial<Record<ReturnType<typeof dueOfPermit>[number]["what"], string>>> = {
  retest: "read the air again",
  revalidate: "revalidate for the shift",
  look: "look after hot work",
  "watch ends": "watch without a break ends",
  call: "communication check",
};

function ofJobs(db: Db, now_ms: number): CalendarEntry[] {
  return openJobs(db, now_ms).flatMap((job): CalendarEntry[] => {
    const at = (id: string, words: string, due_ms: number | null): CalendarEntry[] =>
      due_ms === null
        ? []
        : [
            {
              id: `${job.number} ${id}`,
              words: `${job.number}: ${words}`,
              from_ms: due_ms,
              to_ms: null,
              path: `/jobs/${job.number}`,
              people: job.people,
            },
          ];
    return [
      {
        id: `${job.number} window`,
        words: `${job.number} ${job.title}`,
        from_ms: job.windowFrom_ms,
        to_ms: job.windowTo_ms,
        path: `/jobs/${job.number}`,
        people: job.people,
      },
      ...at("review", "review why its isolation stays", job.reviewDue_ms),
      ...at("locks", "read the locks at every point", job.locksDue_ms),
    ];
  });
}

function ofProcedures(db: Db): CalendarEntry[] {
  return allVersions(db).flatMap(({ life, title }): CalendarEntry[] => {
    const { number } = life;
    const due_ms = inspectionDue_ms(life);
    if (due_ms === null) return [];
    const words = `${number}: yearly inspection, ${title}`;
    return [
      { id: `${number} inspection`, words, from_ms: due_ms, to_ms: null, path: `/procedures/${number}`, people: [] },
    ];
  });
}

function ofGear(db: Db): CalendarEntry[] {
  return allGear(db).flatMap(({ kind, number, inDateUntil_ms, withdrawn, owner }): CalendarEntry[] =>
    withdrawn || inDateUntil_ms === null
      ? []
      : [
          {
            id: `${kind} ${number}`,
            words: `${kind} ${number}: its date is over, test it anew`,
            from_ms: inDateUntil_ms,
            to_ms: null,
            path: "/locks/register",
            people: owner === null ? [] : [owner],
          },
        ],
  );
}

function ofPeople(db: Db): CalendarEntry[] {
  return db
    .select({ id: people.id, name: people.name, appointed: people.appointed, active: people.active })
    .from(people)
    .all()
    .flatMap(({ id, name, appointed, active }) =>
      Object.entries(active ? appointed : {}).flatMap(([competence, given]): CalendarEntry[] =>
        given === undefined || given.until_ms === null
          ? []
          : [
              {
                id: `${id} ${competence}`,
                words: `${name}: ${competence} isolations end`,
                from_ms: given.until_ms,
                to_ms: null,
                path: "/people",
                people: [id as PersonId],
              },
            ],
      ),
    );
}

/** A calendar file as RFC 5545 has it; `person` null for the whole site's. Times are UTC. */
export function calendarFile(
  db: Db,
  { person, name, origin, now_ms }: Readonly<{ person: PersonId | null; name: string; origin: string; now_ms: number }>,
): string {
  const calendar = ical({ name, prodId: { company: "Heavy Lantern", product: "calendar", language: "EN" } });
  calendar.method(ICalCalendarMethod.PUBLISH);
  const host = new URL(origin).host;
  for (const one of entriesFor(calendarEntries(db, now_ms), person, now_ms)) {
    calendar.createEvent({
      id: `${one.id.replaceAll(" ", "-")}@${host}`,
      start: new Date(one.from_ms),
      end: new Date(one.to_ms ?? one.from_ms),
      stamp: new Date(now_ms),
      summary: one.words,
      url: `${origin}${one.path}`,
      description: `As it stood at ${siteTime(now_ms)}. What counts is on the site's own screens.`,
    });
  }
  return calendar.toString();
}
