import { eq } from "drizzle-orm";
import { z } from "zod";
import { momentOf } from "../../core/units/moment";
import {
  dateFault,
  entryFault,
  GEAR_KINDS,
  gearFault,
  gearNumber,
  isDated,
  returnFault,
  type Gear,
} from "../../core/gear/gear";
import { gasSheetSchema } from "../../core/gear/gasSheet";
import type { PersonId } from "../../core/people/roles";
import { jobs, people } from "../db/schema";
import { namesOf } from "../people/signIn";
import { gearBeside, earthStands, gearLookUp, saveGear } from "./gearStore";
import { lockHangs } from "../box/locks";
import { defineAct, type ActOutcome } from "../act/act";

const KEEPERS = ["coordinator", "operator", "issuer", "isolator"] as const;
const kind = z.enum(GEAR_KINDS, "choose what it is");
const number = z.string("the number is missing").trim().min(1, "write its number").max(60, "at most 60 characters");

/** A numbered thing entered, or what is known of it changed: a new test date, a new owner. */
export const enterGear = defineAct({
  type: "gear.enter",
  words: "enter things in the register",
  roles: KEEPERS,
  pin: true,
  input: z.object({
    kind,
    number,
    owner: z.string().nullish(),
    key: z.string().trim().max(60, "at most 60 characters").nullish(),
    inDateUntil_ms: momentOf("must be a day").nullish(),
    rating_V: z
      .number("must be a number of volts")
      .min(0, "must be 0 or more")
      .max(1e6, "must be at most 1000000")
      .nullish(),
    error: z.number("must be a number").min(0, "must be 0 or more").max(1e6, "must be at most 1000000").nullish(),
    sheet: gasSheetSchema.nullish(),
  }),
  run: ({ tx, now_ms }, input) => {
    const subject = `${input.kind} ${gearNumber(input.number)}`;
    const date = dateFault(input.inDateUntil_ms ?? null, now_ms);
    if (date) return { ok: false, subject, refusal: date };
    if (input.owner && !tx.select().from(people).where(eq(people.id, input.owner)).get()) {
      return { ok: false, subject, refusal: { code: "unknown", what: "person", name: input.owner } };
    }
    const known = gearLookUp(tx)(input.kind, input.number);
    const hangs = input.kind === "lock" ? lockHangs(tx)(gearNumber(input.number)) : undefined;
    if (hangs !== undefined && known && known.owner !== (input.owner || null)) {
      return { ok: false, subject, refusal: { code: "lock in use", lock: known.number, where: hangs } };
    }
    const entry: Gear = {
      kind: input.kind,
      number: gearNumber(input.number),
      owner: (input.owner || null) as PersonId | null,
      key: input.key ? gearNumber(input.key) : null,
      inDateUntil_ms: isDated(input.kind) ? (input.inDateUntil_ms ?? null) : null,
      rating_V: input.rating_V ?? null,
      error: input.error ?? null,
      withdrawn: false,
      withdrawnBy: null,
      // It comes from its calibration, or is new: nobody has seen it alarm since.
      bumpedAt_ms: null,
      zeroedAt_ms: null,
      // A new test date does not take away what is known of it.
      sheet: input.kind === "gas instrument" ? (input.sheet ?? known?.sheet ?? null) : null,
      withJob: known?.withJob ?? null,
    };
    const fault = entryFault(entry, gearBeside(tx, entry), namesOf(tx));
    if (fault) return { ok: false, subject, refusal: fault.refusal };
    saveGear(tx, entry);
    return { ok: true, subject, answer: { number: entry.number } };
  },
});

const one = z.object({ kind, number });

/** Broken, lost, failed its test: nobody picks it any more. */
export const withdrawGear = defineAct({
  type: "gear.withdraw",
  words: "withdraw things from use",
  roles: KEEPERS,
  pin: true,
  input: one,
  run: ({ tx, person }, input) => {
    const found = gearLookUp(tx)(input.kind, input.number);
    const subject = `${input.kind} ${gearNumber(input.number)}`;
    if (!found) return { ok: false, subject, refusal: { code: "gear unknown", ...input } };
    if (found.withdrawn)
      return { ok: false, subject, refusal: { code: "already done", what: `Withdrawing ${subject}` } };
    saveGear(tx, { ...found, withdrawn: true, withdrawnBy: person.id });
    return { ok: true, subject, answer: { number: found.number } };
  },
});

/** Mended, found, tested anew: somebody else than who withdrew it gives it back into use and says what was done. */
export const returnGear = defineAct({
  type: "gear.return",
  words: "give things back into use",
  roles: KEEPERS,
  pin: true,
  input: one.extend({
    words: z
      .string("say what was done to it")
      .trim()
      .min(5, "say what was done to it")
      .max(300, "at most 300 characters"),
    inDateUntil_ms: momentOf("must be a day").nullish(),
  }),
  run: ({ tx, person, now_ms }, input): ActOutcome => {
    const which = gearNumber(input.number);
    const subject = `${input.kind} ${which}`;
    const inDateUntil_ms = isDated(input.kind) ? (input.inDateUntil_ms ?? null) : null;
    const found = gearLookUp(tx)(input.kind, which);
    const use = { kind: input.kind, number: which, by: person.id, inDateUntil_ms, now_ms, nameOf: namesOf(tx) };
    const fault = returnFault(found, use);
    if (fault) return { ok: false, subject, refusal: fault };
    const back: Gear = {
      ...found!,
      withdrawn: false,
      withdrawnBy: null,
      inDateUntil_ms,
      bumpedAt_ms: null,
      zeroedAt_ms: null,
    };
    // Its number stands; its key may have gone to another lock meanwhile.
    const keyFault = entryFault(
      back,
      gearBeside(tx, back).filter((other) => other.kind !== back.kind || other.number !== which),
      use.nameOf,
    );
    if (keyFault) return { ok: false, subject, refusal: keyFault.refusal };
    saveGear(tx, back);
    return { ok: true, subject, answer: { number: which } };
  },
});

/** Test gas blown on a gas instrument before a day's use: it alarms, or it is withdrawn on the spot. */
export const bumpGear = defineAct({
  type: "gear.bump",
  words: "bump test gas instruments",
  roles: ["gas tester", ...KEEPERS],
  pin: true,
  input: z.object({
    number,
    gas: z.string("the test gas is missing").trim().min(1, "write which gas was blown on it").max(120),
    verdict: z.enum(["alarmed", "did not alarm"], "say whether it alarmed"),
    /** Zeroed in fresh air, away from the work. */
    zeroed: z.union([z.boolean(), z.literal("on").transform(() => true)]).default(false),
  }),
  run: ({ tx, now_ms, person }, input): ActOutcome => {
    const which = gearNumber(input.number);
    const subject = `gas instrument ${which}`;
    const found = gearLookUp(tx)("gas instrument", which);
    const fault = gearFault(found, {
      kind: "gas instrument",
      number: which,
      at_ms: now_ms,
      job: found?.withJob ?? null,
    });
    if (fault) return { ok: false, subject, refusal: fault };
    const alarmed = input.verdict === "alarmed";
    saveGear(tx, {
      ...found!,
      bumpedAt_ms: alarmed ? now_ms : null,
      zeroedAt_ms: input.zeroed && alarmed ? now_ms : found!.zeroedAt_ms,
      withdrawn: !alarmed,
      withdrawnBy: alarmed ? null : person.id,
    });
    return { ok: true, subject, answer: { number: which, state: alarmed ? "fit" : "withdrawn" } };
  },
});

/** Handed out for a job: from then on no other job can pick it. */
export const handOutGear = defineAct({
  type: "gear.hand-out",
  words: "hand things out",
  roles: KEEPERS,
  pin: false,
  input: one.extend({ job: z.string("choose the job").min(1, "choose the job") }),
  run: ({ tx, now_ms }, input): ActOutcome => {
    const subject = `${input.kind} ${gearNumber(input.number)}`;
    const refused = (refusal: Extract<ActOutcome, { ok: false }>["refusal"]) =>
      ({ ok: false, subject, refusal }) as const;
    const job = tx.select().from(jobs).where(eq(jobs.number, input.job)).get();
    if (job === undefined) return refused({ code: "unknown", what: "job", name: input.job });
    const found = gearLookUp(tx)(input.kind, input.number);
    const fault = gearFault(found, { ...input, number: gearNumber(input.number), at_ms: now_ms });
    if (fault) return refused(fault);
    if (found!.withJob === input.job) return refused({ code: "already done", what: `Handing out ${subject}` });
    const where = inUse(input.kind, found!.number, tx);
    if (where !== undefined) return refused({ code: "lock in use", lock: found!.number, where });
    saveGear(tx, { ...found!, withJob: input.job });
    return { ok: true, subject, answer: { number: found!.number, job: input.job } };
  },
});

/** Given back to the store; not while it hangs or stands somewhere. */
export const giveBackGear = defineAct({
  type: "gear.give-back",
  words: "take things back",
  roles: KEEPERS,
  pin: false,
  input: one,
  run: ({ tx }, input) => {
    const subject = `${input.kind} ${gearNumber(input.number)}`;
    const found = gearLookUp(tx)(input.kind, input.number);
    if (!found) return { ok: false, subject, refusal: { code: "gear unknown", ...input } };
    const where = inUse(input.kind, found.number, tx);
    if (where !== undefined) {
      return { ok: false, subject, refusal: { code: "still in place", things: [`${subject} ${where}`] } };
    }
    saveGear(tx, { ...found, withJob: null });
    return { ok: true, subject, answer: { number: found.number } };
  },
});

/** Where it hangs or stands now, in words; undefined when it does not. */
function inUse(what: Gear["kind"], which: string, tx: Parameters<typeof lockHangs>[0]): string | undefined {
  if (what === "lock") return lockHangs(tx)(which);
  return what === "portable earth" ? earthStands(tx)(which) : undefined;
}
