import { z } from "zod";
import { numberText } from "../../core/gear/gearNumber";
import type { PersonId } from "../../core/people/roles";
import { LIFE } from "../../core/permit/life/lifeTable";
import type { PermitAct } from "../../core/permit/record/permitTypes";
import { changePermit } from "./changePermit";
import { defineAct } from "../act/act";
import { line, time_ms } from "../job/jobActs";

const words = line("What you found", 500);

type Plain = Extract<
  PermitAct,
  { type: "check" | "authorise" | "accept" | "sign off" | "end watch" | "close" | "cancel" }
>;

/** An act on a permit's life that a person signs with nothing more than their PIN. Who may is the table's to say. */
function signed(name: string, type: Plain["type"]) {
  return defineAct({
    type: name,
    words: LIFE[type].words,
    roles: [],
    pin: true,
    input: z.object({ permit: z.string() }),
    run: (context, input) => changePermit(context, input.permit, { type }),
  });
}

/** The same, with words. */
function told(name: string, type: "approve" | "revalidate" | "resume" | "inspect") {
  return defineAct({
    type: name,
    words: LIFE[type].words,
    roles: [],
    pin: true,
    input: z.object({ permit: z.string(), words }),
    run: (context, input) => changePermit(context, input.permit, { type, words: input.words }),
  });
}

export const checkPermit = signed("permit.check", "check");
export const authorisePermit = signed("permit.authorise", "authorise");
export const approvePermit = told("permit.approve", "approve");
export const acceptPermit = signed("permit.accept", "accept");
export const signOff = signed("permit.sign-off", "sign off");
export const endWatch = signed("permit.end-watch", "end watch");
export const inspectPermit = told("permit.inspect", "inspect");
export const closePermit = signed("permit.close", "close");
export const cancelPermit = signed("permit.cancel", "cancel");
export const resumePermit = told("permit.resume", "resume");
export const revalidatePermit = told("permit.revalidate", "revalidate");

/** The work is at its end, or part of it is left and said. Rows of before say nothing of it: then it was the end. */
export const handBackPermit = defineAct({
  type: "permit.hand-back",
  words: LIFE["hand back"].words,
  roles: [],
  pin: true,
  input: z
    .object({
      permit: z.string(),
      work: z.enum(["done", "part"], "say whether all of the work is done").default("done"),
      left: z.string().trim().max(500, "at most 500 characters").default(""),
    })
    .refine(({ work, left }) => work === "done" || left.length >= 3, {
      path: ["left"],
      error: "write what is left to do",
    })
    .refine(({ work, left }) => work === "part" || left === "", {
      path: ["work"],
      error: "something is left to do: then part is done",
    }),
  run: (context, { permit, left }) =>
    changePermit(context, permit, { type: "hand back", ...(left === "" ? {} : { left }) }),
});

/** Its end put off, once. */
export const extendPermit = defineAct({
  type: "permit.extend",
  words: LIFE.extend.words,
  roles: [],
  pin: true,
  input: z.object({
    permit: z.string(),
    until_ms: time_ms("The new end"),
    words,
    stillOn: z.array(z.string().max(80)).max(60).default([]),
    marked: z.array(z.coerce.number().int().min(1)).max(60).default([]),
  }),
  run: (context, { permit, stillOn, ...input }) =>
    changePermit(context, permit, { type: "extend", ...input, stillOn: stillOn as PersonId[] }),
});

/** Back to a draft, with what has to be put right. */
export const sendBack = defineAct({
  type: "permit.send-back",
  words: LIFE["send back"].words,
  roles: [],
  pin: true,
  input: z.object({ permit: z.string(), words: line("What has to be put right", 500) }),
  run: (context, { permit, words: remarks }) => changePermit(context, permit, { type: "send back", words: remarks }),
});

export const issuePermit = defineAct({
  type: "permit.issue",
  words: "issue a permit",
  roles: ["issuer"],
  pin: true,
  input: z.object({
    permit: z.string(),
    /** Where the copies hang. */
    copies: z.array(line("Where a copy hangs", 120)).max(9, "at most 9 copies").default([]),
  }),
  run: (context, { permit, copies }) => changePermit(context, permit, { type: "issue", copies }),
});

export const pointLocks = z.record(z.string().max(80), numberText("the lock number is missing")).optional();

export const signOn = defineAct({
  type: "permit.sign-on",
  words: "sign on to a permit",
  roles: [],
  pin: true,
  input: z.object({
    permit: z.string(),
    lock: numberText("the lock number is missing").default(""),
    points: pointLocks,
    answer: z.string("say where you will work").min(1, "say where you will work").max(120),
    briefed: z.literal(true, "read the briefing, then tick that you did"),
    also: z.string().max(20).optional(),
  }),
  run: (context, { permit, lock, points, answer, also }) =>
    changePermit(context, permit, { type: "sign on", lock, points, answer, also }),
});

/** By the short route: behind their own lock, alone. */
export const beginAlone = defineAct({
  type: "permit.begin-alone",
  words: LIFE["begin alone"].words,
  roles: [],
  pin: true,
  input: z.object({
    permit: z.string(),
    briefed: z.literal(true, "read what may be done, then tick that you did"),
    also: z.string().max(20).optional(),
  }),
  run: (context, { permit, also }) => changePermit(context, permit, { type: "begin alone", also }),
});

export const endAlone = defineAct({
  type: "permit.end-alone",
  words: LIFE["end alone"].words,
  roles: [],
  pin: true,
  input: z.object({ permit: z.string() }),
  run: (context, { permit }) => changePermit(context, permit, { type: "end alone" }),
});

/** Everybody who comes and everybody who goes signs, at one device at the box; all of it is done, or nothing. */
export const handOver = defineAct({
  type: "permit.hand-over",
  words: "hand over at shift change",
  roles: ["coordinator", "issuer", "holder"],
  pin: false,
  input: z.object({
    permit: z.string(),
    pairs: z
      .array(
        z.object({
          from: z.string("choose who goes").min(1, "choose who goes"),
          to: z.string("choose who comes").min(1, "choose who comes"),
          lock: numberText("the lock number is missing").default(""),
          points: pointLocks,
          fromPin: z.string("their PIN is missing").max(20),
          toPin: z.string("their PIN is missing").max(20),
        }),
      )
      .min(1, "name who comes on for whom")
      .max(60, "at most 60 at once"),
  }),
  forLedger: (input) => ({
    ...input,
    pairs: input.pairs.map(({ fromPin: _, toPin: __, ...pair }) => pair),
  }),
  signers: (input) =>
    input.pairs.flatMap(({ from, to, fromPin, toPin }, i) => [
      { person: to, pin: toPin, field: `pairs.${i}.toPin` },
      { person: from, pin: fromPin, field: `pairs.${i}.fromPin` },
    ]),
  run: (context, input) =>
    changePermit(context, input.permit, {
      type: "hand over",
      pairs: input.pairs.map(({ from, to, lock, points }) => ({
        from: from as PersonId,
        to: to as PersonId,
        lock,
        points,
      })),
    }),
});

/** Anybody stops the work, at once and without a PIN: nobody looks for a number while something goes wrong. */
export const stopWork = defineAct({
  type: "permit.stop",
  protects: true,
  words: "stop the work",
  roles: [],
  pin: false,
  input: z.object({
    permit: z.string(),
    cause: z.enum(["stop-work", "area alarm", "weather", "clash", "gas"]).default("stop-work"),
    reason: line("Why the work stops", 500),
  }),
  run: (context, { permit, cause, reason }) => changePermit(context, permit, { type: "stop", cause, reason }),
});
