import { eq } from "drizzle-orm";
import { z } from "zod";
import { beginCrewRound, crewRoundFault, type CrewRound } from "../../core/crew/crewRound";
import { numberText } from "../../core/gear/gearNumber";
import type { PersonId } from "../../core/people/roles";
import { LIFE } from "../../core/permit/life/lifeTable";
import type { PermitAct } from "../../core/permit/record/permitTypes";
import type { Refusal } from "../../core/refusal/refusal";
import { defineAct, type ActContext, type ActOutcome } from "../act/act";
import type { Tx } from "../db/database";
import { people } from "../db/schema";
import { leaveBox, standAtBox } from "../people/boxScreen";
import { namesOf, toPerson, type Person } from "../people/signIn";
import { changePermit } from "../permit/changePermit";
import { pointLocks } from "../permit/permitActs";
import { permitNow } from "../permit/permitFacts";
import { addCrewRound, crewRoundNumbered, saveCrewRound } from "./crewStore";

const permit = z.string().max(20);
const crew = z.string().max(20);
const who = z.string("choose who signs").min(1, "choose who signs").max(80);
const pin = z.string("their PIN is missing").min(1, "their PIN is missing").max(20);

/** Whoever leads or issued the work is at the box, and signs for being there once. */
export const beginCrew = defineAct({
  type: "crew.begin",
  words: "begin a crew round at the box",
  roles: [],
  pin: true,
  isOfCrewRound: true,
  input: z.object({ permit }),
  run: ({ tx, person, now_ms }, { permit: number }) => {
    const found = permitNow(tx, number, now_ms);
    if (found === null) return unknown("permit", number, number);
    const begun = beginCrewRound(found.now, { by: person.id, at_ms: now_ms, nameOf: namesOf(tx) });
    if (!begun.ok) return { ok: false, subject: number, refusal: begun.refusal };
    const made = addCrewRound(tx, found.row.id, begun.value);
    standAtBox(tx, person.session, made);
    return { ok: true, subject: number, answer: { permit: number, crew: made } };
  },
});

/** One of the crew comes on, with their own PIN and lock, after the leader asked where the work is. */
export const crewSignOn = defineAct({
  type: "crew.sign-on",
  words: LIFE["sign on"].words,
  roles: [],
  pin: false,
  isOfCrewRound: true,
  input: z.object({
    permit,
    crew,
    who,
    lock: numberText("the lock number is missing").default(""),
    points: pointLocks,
    answer: z.string("say where the work is").min(1, "say where the work is").max(120),
    briefed: z.literal(true, "read the briefing, then tick that you did"),
    also: z.string().max(20).optional(),
    whoPin: pin,
  }),
  forLedger: ({ whoPin: _, ...kept }) => kept,
  signers: (input) => [{ person: input.who, pin: input.whoPin, field: "whoPin" }],
  atCrewRound: (tx, person, input, clock_ms) => roundFault(tx, person, input, clock_ms),
  run: (context, { permit: number, crew: round, who: person, lock, points, answer, also }) =>
    inRound(context, { permit: number, crew: round }, person, { type: "sign on", lock, points, answer, also }),
});

export const crewSignOff = defineAct({
  type: "crew.sign-off",
  words: LIFE["sign off"].words,
  roles: [],
  pin: false,
  isOfCrewRound: true,
  input: z.object({ permit, crew, who, whoPin: pin }),
  forLedger: ({ whoPin: _, ...kept }) => kept,
  signers: (input) => [{ person: input.who, pin: input.whoPin, field: "whoPin" }],
  atCrewRound: (tx, person, input, clock_ms) => roundFault(tx, person, input, clock_ms),
  run: (context, { permit: number, crew: round, who: person }) =>
    inRound(context, { permit: number, crew: round }, person, { type: "sign off" }),
});

/** Everybody who is there by the record is called by name. At the box it keeps the crew round open. */
export const callRoll = defineAct({
  type: "permit.call-roll",
  words: LIFE["call roll"].words,
  roles: [],
  pin: true,
  isOfCrewRound: true,
  input: z.object({ permit, crew: crew.default(""), seen: z.array(z.string().max(80)).max(200).default([]) }),
  run: (context, { permit: number, crew: round, seen }) => {
    const act = { type: "call roll", seen: seen as PersonId[] } as const;
    return round === ""
      ? changePermit(context, number, act)
      : inRound(context, { permit: number, crew: round }, context.person.id, act);
  },
});

/** The screen at the box is free again. */
export const endCrew = defineAct({
  type: "crew.end",
  words: "end a crew round",
  roles: [],
  pin: true,
  isOfCrewRound: true,
  input: z.object({ crew }),
  run: ({ tx, person, now_ms }, { crew: number }) => {
    const round = crewRoundNumbered(tx, number);
    if (round === null) return unknown("crew round", number, "");
    if (round.lead !== person.id) return { ok: false, subject: round.permit, refusal: ofAnother(tx, round) };
    if (round.ended_ms === null) saveCrewRound(tx, { ...round, ended_ms: now_ms });
    leaveBox(tx, number);
    return { ok: true, subject: round.permit, answer: { permit: round.permit, crew: number } };
  },
});

type Where = Readonly<{ permit: string; crew: string }>;

const ofAnother = (tx: Tx, { number, lead, permit: of }: CrewRound): Refusal => ({
  code: "crew round of another",
  crew: number,
  lead: namesOf(tx)(lead),
  permit: of,
});

const unknown = (what: string, name: string, subject: string): ActOutcome & { ok: false } => ({
  ok: false,
  subject,
  refusal: { code: "unknown", what, name },
});

function roundFault(tx: Tx, person: Person, { permit: number, crew: round }: Where, now_ms: number): Refusal | null {
  const found = crewRoundNumbered(tx, round);
  if (found === null) return { code: "unknown", what: "crew round", name: round };
  return crewRoundFault(found, { permit: number, by: person.id, at_ms: now_ms, nameOf: namesOf(tx) });
}

/** An act of one of the crew at the screen of an open round: theirs, as if they had sent it, and the round goes on from it. */
function inRound(context: ActContext, where: Where, whose: string, act: PermitAct): ActOutcome {
  const { tx, now_ms } = context;
  const fault = roundFault(tx, context.person, where, now_ms);
  if (fault) return { ok: false, subject: where.permit, refusal: fault };
  const row = tx.select().from(people).where(eq(people.id, whose)).get();
  if (row === undefined) return unknown("person", whose, where.permit);
  const outcome = changePermit({ ...context, person: toPerson(row, now_ms) }, where.permit, act);
  if (!outcome.ok) return outcome;
  saveCrewRound(tx, { ...crewRoundNumbered(tx, where.crew)!, last_ms: now_ms });
  return outcome;
}

/** A crew at one screen at the box, for the list of acts. */
export const CREW_ACTS = [beginCrew, crewSignOn, crewSignOff, callRoll, endCrew];
