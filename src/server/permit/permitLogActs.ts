import { gearNumber } from "../../core/gear/gearNumber";
import { z } from "zod";
import { POSTS } from "../../core/permit/kinds/kinds";
import { BAD_AIR_CAUSES, ODD_AIR_CAUSES } from "../../core/permit/record/permitLog";
import { LIFE } from "../../core/permit/life/lifeTable";
import type { PersonId } from "../../core/people/roles";
import type { PermitAct, TypedReading } from "../../core/permit/record/permitTypes";
import { readNumber } from "../../core/units/readNumber";
import { changePermit } from "./changePermit";
import { defineAct } from "../act/act";
import { line } from "../job/jobActs";

/** An act that adds to a permit's log. Who may is the table's to say. */
export function logAct<Shape extends z.ZodRawShape>(
  name: string,
  type: PermitAct["type"],
  pin: boolean,
  shape: Shape,
  toActs: (input: z.output<z.ZodObject<Shape>>) => PermitAct | readonly PermitAct[],
) {
  return defineAct({
    type: name,
    words: LIFE[type].words,
    roles: [],
    pin,
    input: z.object({ permit: z.string() }).and(z.object(shape)),
    run: (context, input) => changePermit(context, input.permit, ...[toActs(input)].flat()),
  });
}

export const point = z.string("name the test point").min(1, "name the test point").max(120);
export const person = z.string("choose who").min(1, "choose who");
const post = z.enum(POSTS);

/** A figure as it is read off, in the unit of the display, and so it stands in the ledger; empty: not read. */
export function shown(label: string) {
  return z.union([z.number(), z.string(), z.null()]).transform((raw, context) => {
    if (raw === "" || raw === null) return null;
    const read = typeof raw === "number" ? { ok: true as const, value: raw } : readNumber(raw);
    if (read.ok && read.value >= 0) return read.value;
    context.addIssue({ code: "custom", message: `${label}: ${read.ok ? "must not be below 0" : read.message}` });
    return z.NEVER;
  });
}

const fraction = (shown: number | null, whole: number) => (shown === null ? null : shown / whole);

/** What a reading is typed as. */
export const READING = {
  oxygen_percent: shown("Oxygen"),
  flammable_percent: shown("Flammable"),
  toxics_ppm: z.record(z.string().max(40), shown("The reading")).default({}),
};

/** As fractions of the whole. */
export const readingOf = ({
  oxygen_percent,
  flammable_percent,
  toxics_ppm,
}: z.output<z.ZodObject<typeof READING>>): TypedReading => ({
  oxygen: fraction(oxygen_percent, 100),
  flammable: fraction(flammable_percent, 100),
  toxics: Object.entries(toxics_ppm).map(([gas, ppm]) => ({ gas, fraction: fraction(ppm, 1e6) })),
});

/** Several things looked at in one round, signed once. */
export const tickAsks = logAct(
  "permit.tick",
  "tick",
  true,
  {
    asks: z.array(z.string().max(200)).min(1, "tick what you have looked at").max(60),
    words: z.string().trim().max(500).default(""),
  },
  ({ asks, words }) => asks.map((ask) => ({ type: "tick", ask, words })),
);

export const decideClash = logAct(
  "permit.decide-clash",
  "decide clash",
  true,
  {
    clash: z.string().max(400),
    decision: z.enum(["go on", "wait"], "say whether both go on, or this one waits"),
    reason: line("The reason", 500),
  },
  (input) => ({ type: "decide clash", ...input }),
);

export const beginBreak = logAct("permit.begin-break", "begin break", false, {}, () => ({ type: "begin break" }));
export const goOn = logAct("permit.go-on", "go on", true, {}, () => ({ type: "go on" }));
export const beginVentilation = logAct("permit.begin-ventilation", "begin ventilation", false, {}, () => ({
  type: "begin ventilation",
}));
export const endVentilation = logAct("permit.end-ventilation", "end ventilation", false, {}, () => ({
  type: "end ventilation",
}));
export const findCause = logAct(
  "permit.find-cause",
  "find cause",
  true,
  { point, cause: z.enum(BAD_AIR_CAUSES, "choose where it came from"), words: line("What was found", 500) },
  (input) => ({ type: "find cause", ...input }),
);
export const explainAir = logAct(
  "permit.explain-air",
  "explain",
  true,
  { point, cause: z.enum(ODD_AIR_CAUSES, "choose why"), words: line("How it is known", 500) },
  (input) => ({ type: "explain", ...input }),
);
export const replaceReading = logAct(
  "permit.replace-reading",
  "replace reading",
  true,
  { gas: z.string("choose the gas").min(1, "choose the gas").max(80), words: line("What is done instead", 500) },
  (input) => ({ type: "replace reading", ...input }),
);
export const endBreak = logAct("permit.end-break", "end break", true, {}, () => ({ type: "end break" }));
export const beginPurge = logAct("permit.begin-purge", "begin purge", false, {}, () => ({ type: "begin purge" }));
export const endPurge = logAct("permit.end-purge", "end purge", false, {}, () => ({ type: "end purge" }));
export const talkToInside = logAct("permit.talk", "talk", false, {}, () => ({ type: "talk" }));

export const beginSample = logAct(
  "permit.begin-sample",
  "begin sample",
  false,
  {
    point,
    instrument: line("The instrument's number", 40).transform(gearNumber),
  },
  (input) => ({ type: "begin sample", ...input }),
);

export const readAir = logAct("permit.read-air", "read", true, { point, ...READING }, ({ point, ...shown }) => ({
  type: "read",
  point,
  reading: readingOf(shown),
}));

export const flushPocket = logAct(
  "permit.flush",
  "flush",
  false,
  { point, held_s: z.coerce.number("must be a number").min(0).max(3600) },
  (input) => ({ type: "flush", ...input }),
);

/** Whoever takes the fire watch says by the same signature, or later, that they are ready for it. */
export const takePost = logAct(
  "permit.take-post",
  "take post",
  true,
  { post, ready: z.union([z.boolean(), z.literal("on").transform(() => true)]).default(false) },
  ({ post, ready }) => [
    { type: "take post", post },
    ...(ready && post === "fire watch" ? [{ type: "tick", ask: "watch ready", words: "" } as const] : []),
  ],
);
export const leavePost = logAct("permit.leave-post", "leave post", true, { post }, (input) => ({
  type: "leave post",
  ...input,
}));

export const letIn = logAct("permit.go-in", "go in", false, { person }, (input) => ({
  type: "go in",
  person: input.person as PersonId,
}));
export const writeOut = logAct("permit.come-out", "come out", false, { person }, (input) => ({
  type: "come out",
  person: input.person as PersonId,
}));

const seen = line("What you saw", 500);
export const watchCheck = logAct("permit.watch-check", "watch check", false, { words: seen }, (input) => ({
  type: "watch check",
  ...input,
}));
export const finalCheck = logAct("permit.final-check", "final check", true, { words: seen }, (input) => ({
  type: "final check",
  ...input,
}));
export const safeguardBack = logAct("permit.safeguard-back", "safeguard back", true, { words: seen }, (input) => ({
  type: "safeguard back",
  ...input,
}));
export const tellControlRoom = logAct(
  "permit.tell-control-room",
  "tell control room",
  false,
  { who: line("Who was told", 80) },
  (input) => ({ type: "tell control room", ...input }),
);

export const hangCopy = logAct(
  "permit.hang-copy",
  "hang copy",
  false,
  {
    where: line("Where it hangs", 120),
    second: z.union([z.boolean(), z.literal("on").transform(() => true)]).default(false),
  },
  (input) => ({ type: "hang copy", ...input }),
);
const number = (label: string) => z.coerce.number(`${label} is missing`).int().min(1);
export const returnCopy = logAct("permit.return-copy", "return copy", false, { copy: number("The copy") }, (input) => ({
  type: "return copy",
  ...input,
}));
export const putIn = logAct(
  "permit.put-in",
  "put in",
  false,
  { what: line("What was put in", 80), where: line("Where", 120) },
  (input) => ({ type: "put in", ...input }),
);
export const takeOut = logAct("permit.take-out", "take out", false, { thing: number("The thing") }, (input) => ({
  type: "take out",
  ...input,
}));

/** Acts of the log, all of them, for the list of acts. */
export const PERMIT_LOG_ACTS = [
  tickAsks,
  decideClash,
  beginBreak,
  endBreak,
  goOn,
  beginVentilation,
  endVentilation,
  findCause,
  explainAir,
  replaceReading,
  beginPurge,
  endPurge,
  talkToInside,
  beginSample,
  readAir,
  flushPocket,
  takePost,
  leavePost,
  letIn,
  writeOut,
  watchCheck,
  finalCheck,
  safeguardBack,
  tellControlRoom,
  hangCopy,
  returnCopy,
  putIn,
  takeOut,
];
