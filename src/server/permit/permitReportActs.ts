import { z } from "zod";
import { gearNumber } from "../../core/gear/gearNumber";
import type { PersonId } from "../../core/people/roles";
import { LIFE } from "../../core/permit/life/lifeTable";
import { AUDIT_FINDINGS, AUDIT_LOOKS } from "../../core/permit/record/permitLog";
import { defineAct } from "../act/act";
import { line, time_ms } from "../job/jobActs";
import { changePermit } from "./changePermit";
import { logAct, person, point, READING, readingOf } from "./permitLogActs";

/** Anybody says that something burns, at once and without a PIN; it stops work as well, so it is done like a stop. */
export const reportFire = defineAct({
  type: "permit.report-fire",
  protects: true,
  words: LIFE["report fire"].words,
  roles: [],
  pin: false,
  input: z.object({
    permit: z.string(),
    where: line("Where it burned", 120),
    what: line("What burned", 200),
    out: line("How it was put out", 200),
  }),
  run: (context, { permit, ...fire }) => changePermit(context, permit, { type: "report fire", ...fire }),
});

export const noteRefusal = logAct(
  "permit.note-refusal",
  "note refusal",
  true,
  {
    who: line("Who would not", 80),
    what: line("What they would not sign or write", 120),
    words: line("What they said", 500),
  },
  (input) => ({ type: "note refusal", ...input }),
);

const finding = z.enum(AUDIT_FINDINGS, "say what you found");

export const auditPermit = logAct(
  "permit.audit",
  "audit",
  true,
  {
    found: z.record(z.enum(AUDIT_LOOKS), finding, "say of each what you found"),
    words: z.string().trim().max(500, "at most 500 characters").default(""),
  },
  (input) => ({ type: "audit", ...input }),
);

export const enterPaperReading = logAct(
  "permit.enter-paper-reading",
  "enter paper reading",
  true,
  {
    point,
    instrument: line("The instrument's number", 40).transform(gearNumber),
    reader: person,
    drawn_ms: time_ms("The time it was drawn"),
    read_ms: time_ms("The time it was read"),
    ...READING,
  },
  ({ point, instrument, reader, drawn_ms, read_ms, ...shown }) => ({
    type: "enter paper reading",
    point,
    instrument,
    reader: reader as PersonId,
    drawn_ms,
    read_ms,
    reading: readingOf(shown),
  }),
);

/** What people report of a permit, for the list of acts. */
export const PERMIT_REPORT_ACTS = [reportFire, noteRefusal, auditPermit, enterPaperReading];
