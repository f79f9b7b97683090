import { eq } from "drizzle-orm";
import { z } from "zod";
import { PARTS } from "../../core/library/procedure";
import { decideProcedure, type ProcedureCommand } from "../../core/library/procedureLife";
import type { PersonId } from "../../core/people/roles";
import { itemTagOf } from "../../core/procedure/steps";
import { defineAct, type ActContext, type ActOutcome } from "../act/act";
import { jobs, people } from "../db/schema";
import { isAmong } from "../db/isAmong";
import { line } from "../job/jobActs";
import { currentPlant } from "../plant/plantStore";
import { contentOf } from "./contentOf";
import { loadVersion, saveVersion, writeVersion } from "./procedureStore";

/** From a job that is closed: what went all the way, from the request to back in service. */
export const writeProcedure = defineAct({
  type: "procedure.write",
  words: "write an isolation procedure",
  roles: ["coordinator", "isolator"],
  pin: true,
  input: z.object({
    job: z.string().max(20),
    title: line("What it is for", 120),
    /** The procedure of which this is the next version; a new one where none is named. */
    procedure: z.string().max(20).nullish(),
  }),
  run: ({ tx, person, now_ms }, input) => {
    const row = tx.select().from(jobs).where(eq(jobs.number, input.job)).get();
    const unknown = (what: string, name: string): ActOutcome => ({
      ok: false,
      subject: input.job,
      refusal: { code: "unknown", what, name },
    });
    if (row === undefined) return unknown("job", input.job);
    if (row.state !== "closed") {
      const refusal = { code: "wrong state", what: `Job ${row.number}`, state: row.state, needs: "closed" } as const;
      return { ok: false, subject: row.number, refusal };
    }
    if (input.procedure && loadVersion(tx, input.procedure) === null) return unknown("procedure", input.procedure);
    const content = contentOf(tx, row);
    if (content === null) return { ok: false, subject: row.number, refusal: { code: "no isolation" } };
    const plant = currentPlant(tx);
    const place = content.job.faces[0]!.place;
    const equipment = plant ? itemTagOf(plant.graph, place) : place;
    const made = writeVersion(tx, {
      procedure: input.procedure ?? null,
      title: input.title,
      equipment,
      job: row.number,
      content,
      by: person.id,
      at_ms: now_ms,
    });
    return {
      ok: true,
      subject: made.number,
      answer: { procedure: made.number, version: made.version, job: row.number },
    };
  },
});

type Asked = Readonly<{ procedure: string; version: number }>;
const which = { procedure: z.string().max(20), version: z.number("the version is missing").int() };

/** Load, decide, save. */
function change(context: ActContext, { procedure, version }: Asked, command: Command): ActOutcome {
  const { tx, person, now_ms } = context;
  const stored = loadVersion(tx, procedure, version);
  if (stored === null) {
    return { ok: false, subject: procedure, refusal: { code: "unknown", what: "procedure", name: procedure } };
  }
  const who = { by: person.id as PersonId, roles: person.roles, competences: person.competences, at_ms: now_ms };
  const decided = decideProcedure(stored.life, { ...command, ...who } as ProcedureCommand);
  if (!decided.ok) return { ok: false, subject: procedure, refusal: decided.refusal };
  saveVersion(tx, stored, decided.value);
  return { ok: true, subject: procedure, answer: { procedure, version, state: decided.value.state } };
}
type Command = ProcedureCommand extends infer C
  ? C extends ProcedureCommand
    ? Omit<C, "by" | "roles" | "competences" | "at_ms">
    : never
  : never;

export const signProcedure = defineAct({
  type: "procedure.sign",
  words: "approve an isolation procedure",
  roles: [],
  pin: true,
  input: z.object({ ...which, part: z.enum(PARTS, "say for what you sign: the trade or the equipment") }),
  run: (context, { part, ...asked }) => change(context, asked, { type: "sign", part }),
});

export const inspectProcedure = defineAct({
  type: "procedure.inspect",
  words: "inspect an isolation procedure",
  roles: ["coordinator", "isolator"],
  pin: true,
  input: z.object({
    ...which,
    watched: z.array(z.string().max(60)).max(60, "at most 60 people").default([]),
    found: line("What was found", 1000),
    sound: z.boolean("say whether it was followed and is right"),
  }),
  run: (context, { watched, found, sound, ...asked }) => {
    const known = context.tx.select({ id: people.id }).from(people).where(isAmong(people.id, watched)).all();
    const stranger = watched.find((id) => !known.some((one) => one.id === id));
    if (stranger !== undefined) {
      return { ok: false, subject: asked.procedure, refusal: { code: "unknown", what: "person", name: stranger } };
    }
    return change(context, asked, { type: "inspect", watched: watched as PersonId[], found, sound });
  },
});

export const withdrawProcedure = defineAct({
  type: "procedure.withdraw",
  words: "withdraw an isolation procedure",
  roles: ["coordinator", "issuer"],
  pin: true,
  input: z.object({ ...which, reason: line("Why it is withdrawn", 500) }),
  run: (context, { reason: _, ...asked }) => change(context, asked, { type: "withdraw" }),
});

export const PROCEDURE_ACTS = [writeProcedure, signProcedure, inspectProcedure, withdrawProcedure];
