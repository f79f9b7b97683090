import { and, eq, inArray } from "drizzle-orm";
import { z } from "zod";
import { close, CLOSE_MUSTERS, covers, tick, type Muster, type MusterPerson } from "../../core/muster/muster";
import { inside } from "../../core/permit/people/entries";
import { onPost } from "../../core/permit/people/posts";
import { peopleOn, type PermitState } from "../../core/permit/record/permitTypes";
import type { PersonId } from "../../core/people/roles";
import type { Result } from "../../core/refusal/result";
import { defineAct, type ActContext, type ActOutcome } from "../act/act";
import type { Tx } from "../db/database";
import { jobs, permits } from "../db/schema";
import { line } from "../job/jobActs";
import { namesOf } from "../people/signIn";
import { loadPermits, type StoredPermit } from "../permit/permitStore";
import { settleNumbers } from "../permit/settlePermits";
import { currentPlant } from "../plant/plantStore";
import { spotOfWork, spotsOf } from "../plant/spots";
import { addMuster, musterNumbered, saveMuster } from "./musterStore";

/** Somebody may be on, on post or inside. */
const OUT: readonly PermitState[] = ["issued", "live", "suspended", "run out", "watching"];

/**
 * Anybody stops all work in an area, or on the site, at once and without a PIN. Every permit there stops by the rule that no
 * work goes on while a muster is open; each has its own row in the ledger.
 */
export const stopAll = defineAct({
  type: "site.stop",
  protects: true,
  words: "stop all work",
  roles: [],
  pin: false,
  input: z.object({
    area: z.string().trim().max(120).default(""),
    reason: line("Why all work stops", 500),
  }),
  run: ({ tx, person, now_ms }, { area, reason }) => {
    const known = currentPlant(tx)?.plant.areas.map(({ name }) => name) ?? [];
    if (area !== "" && !known.includes(area)) {
      return { ok: false, subject: "", refusal: { code: "unknown", what: "area", name: area } };
    }
    const there = permitsIn(tx, area);
    const people = peopleUnder(there);
    const number = addMuster(tx, { area, reason, by: person.id, at_ms: now_ms, people, seen: [], closed: null });
    const numbers = there.map(({ row }) => row.number);
    return {
      ok: true,
      subject: number,
      answer: { muster: number, permits: numbers.length, people: people.length },
      then: (after, then_ms) => {
        const { moved, head } = settleNumbers(after, numbers, then_ms);
        return { head, about: moved, fallen: [] };
      },
    };
  },
});

function permitsIn(tx: Tx, area: string): StoredPermit[] {
  const plant = currentPlant(tx);
  const spot = spotsOf(plant);
  const rows = tx
    .select({ number: permits.number, details: permits.details, job: jobs.job })
    .from(permits)
    .innerJoin(jobs, eq(jobs.id, permits.jobId))
    .where(and(inArray(permits.state, [...OUT])))
    .all();
  const there = rows.filter(({ details, job }) => {
    const places = job.faces.map(({ place }) => place);
    return covers({ area, closed: null }, spotOfWork(plant, spot, details, places).area);
  });
  return loadPermits(
    tx,
    there.map(({ number }) => number),
  );
}

/** Everybody on, on post or inside, once each. */
function peopleUnder(there: readonly StoredPermit[]): MusterPerson[] {
  const people = new Map<PersonId, { permits: string[]; inside: string | null }>();
  for (const { life } of there) {
    const within = new Set(inside(life.log).map(({ person }) => person));
    const here = new Set([
      ...within,
      ...peopleOn(life).map((one) => one.person),
      ...onPost(life.log).map((one) => one.person),
    ]);
    for (const person of here) {
      const known = people.get(person) ?? { permits: [], inside: null };
      known.permits.push(life.number);
      if (within.has(person)) known.inside = life.number;
      people.set(person, known);
    }
  }
  return [...people].map(([person, of]) => ({ person, ...of }));
}

function change({ tx }: ActContext, number: string, decide: (muster: Muster) => Result<Muster>): ActOutcome {
  const muster = musterNumbered(tx, number);
  if (muster === null)
    return { ok: false, subject: number, refusal: { code: "unknown", what: "muster", name: number } };
  const decided = decide(muster);
  if (!decided.ok) return { ok: false, subject: number, refusal: decided.refusal };
  saveMuster(tx, decided.value);
  return { ok: true, subject: number, answer: { muster: number } };
}

const who = z.object({ muster: z.string().max(20), person: z.string().min(1).max(80) });

export const tickOff = defineAct({
  type: "muster.seen",
  words: "tick somebody off at a muster",
  roles: [],
  pin: false,
  input: who,
  run: (context, { muster, person }) =>
    change(context, muster, (one) =>
      tick(one, { by: context.person.id, at_ms: context.now_ms, person: person as PersonId, isSeen: true }),
    ),
});

export const takeBackTick = defineAct({
  type: "muster.not-seen",
  words: "take back that somebody was seen",
  roles: [],
  pin: false,
  input: who,
  run: (context, { muster, person }) =>
    change(context, muster, (one) =>
      tick(one, { by: context.person.id, at_ms: context.now_ms, person: person as PersonId, isSeen: false }),
    ),
});

export const closeMuster = defineAct({
  type: "muster.close",
  words: "close a muster",
  roles: CLOSE_MUSTERS,
  pin: true,
  input: z.object({ muster: z.string().max(20) }),
  run: (context, { muster }) =>
    change(context, muster, (one) => close(one, { by: context.person.id, at_ms: context.now_ms }, namesOf(context.tx))),
});

export const MUSTER_ACTS = [stopAll, tickOff, takeBackTick, closeMuster];
