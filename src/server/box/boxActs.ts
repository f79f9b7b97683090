import { eq } from "drizzle-orm";
import { z } from "zod";
import { numberText } from "../../core/gear/gearNumber";
import type { PersonId } from "../../core/people/roles";
import { people } from "../db/schema";
import { enterLock } from "../gear/gearStore";
import { loadBox } from "./boxStore";
import { defineAct, type ActContext, type ActOutcome } from "../act/act";
import { moveBox } from "../isolation/isolationActs";
import type { BoxCommand } from "../../core/box/boxLife";

const lock = numberText("the lock number is missing").refine((number) => number !== "", "write the number of the lock");

/** The coordinator's own lock, or the department's with a name on it, over everybody else's. */
export const hangOnBox = defineAct({
  type: "box.hang",
  words: "hang the lock that is first on and last off",
  roles: ["coordinator"],
  pin: true,
  input: z.object({
    box: z.string(),
    role: z.enum(["coordinator", "department"], "choose whose lock it is"),
    lock,
    /** Whose name is on the department's lock; the coordinator's own needs none. */
    person: z.string().optional(),
  }),
  run: (context, input) => {
    const { tx } = context;
    const person = (input.role === "department" && input.person ? input.person : context.person.id) as PersonId;
    if (tx.select({ id: people.id }).from(people).where(eq(people.id, person)).get() === undefined) {
      return { ok: false, subject: input.box, refusal: { code: "unknown", what: "person", name: person } };
    }
    const at = { by: context.person.id, at_ms: context.now_ms };
    const outcome = changeBox(context, input.box, { ...at, type: "hang", role: input.role, person, lock: input.lock });
    if (outcome.ok) enterLock(tx, input.lock, input.role === "coordinator" ? person : null);
    return outcome;
  },
});

export const takeOffBox = defineAct({
  type: "box.take-off",
  words: "take off the lock that was first on",
  roles: ["coordinator"],
  pin: true,
  input: z.object({ box: z.string(), lock }),
  run: (context, input) =>
    changeBox(context, input.box, { by: context.person.id, at_ms: context.now_ms, type: "take off", lock: input.lock }),
});

function changeBox({ tx }: ActContext, number: string, command: BoxCommand): ActOutcome {
  const box = loadBox(tx, { number });
  if (box === null) return { ok: false, subject: number, refusal: { code: "unknown", what: "box", name: number } };
  const fault = moveBox(tx, box.id, command);
  if (fault) return { ok: false, subject: number, refusal: fault };
  return { ok: true, subject: number, answer: { box: number } };
}
