import { randomUUID } from "node:crypto";
import { and, eq, isNull, max } from "drizzle-orm";
import { z } from "zod";
import { proveSwap, type SwapFault } from "../../core/guard/proveSwap";
import { competenceFor, stepLabel, type PlannedStep } from "../../core/procedure/steps";
import { samePlate } from "../../core/isolation/isolation";
import type { Refusal } from "../../core/refusal/refusal";
import { siteLockFault } from "../../core/gear/gear";
import { holds, items, steps } from "../db/schema";
import { loadBox } from "../box/boxStore";
import { hangLock, isolationFacts, loadIsolation } from "./isolationStore";
import { boxesOf } from "../box/locks";
import { liveJobs } from "./liveJobs";
import { currentPlant } from "../plant/plantStore";
import { defineAct } from "../act/act";
import { moveBox } from "./isolationActs";

/**
 * One point of a standing isolation for another, with the proof that nobody loses a barrier: the new lock is hung first,
 * then the old one lifted, by one person on the spot, and both are recorded together.
 */
export const swapPoint = defineAct({
  type: "point.swap",
  words: "swap a point of an isolation",
  roles: ["isolator"],
  pin: true,
  input: z.object({
    isolation: z.string(),
    from: z.string().trim().min(1, "name the point to lift"),
    to: z.string().trim().min(1, "name the point to lock"),
    plate: z.string().trim().max(60),
    lock: z.string().trim().min(1, "write the number of the new lock").max(60),
    reason: z.string().trim().min(3, "write the reason").max(500),
  }),
  run: ({ tx, person, now_ms }, input) => {
    const stored = loadIsolation(tx, input.isolation);
    const plant = currentPlant(tx);
    const refused = (refusal: Refusal) => ({ ok: false, subject: input.isolation, refusal }) as const;
    if (stored === null || plant === null)
      return refused({ code: "unknown", what: "isolation", name: input.isolation });
    const { life, row } = stored;
    if (life.state !== "isolating" && life.state !== "proven") {
      return refused({ code: "wrong state", what: `Isolation ${life.number}`, state: life.state, needs: "standing" });
    }
    const live = liveJobs(tx);
    const own = live.filter(({ isolation }) => isolation === life.number);
    if (!own.some((one) => one.holds.includes(input.from))) {
      return refused({ code: "unknown", what: "lock of this isolation on", name: input.from });
    }
    if (own.some((one) => one.holds.includes(input.to))) {
      return refused({ code: "already done", what: `Locking ${input.to} for this isolation` });
    }
    const fault = proveSwap(plant.graph, live, {
      jobs: own.map(({ number }) => number),
      from: input.from,
      to: input.to,
    });
    if (fault) return refused({ code: "swap not proved", why: whyNot(fault) });

    const item = plant.plant.items[plant.graph.itemByTag.get(input.to)!]!;
    const step: PlannedStep = {
      id: `s${randomUUID().slice(0, 8)}`,
      phase: "isolate",
      kind: "lock",
      subject: input.to,
      plate: item.plate ?? item.tag,
      words: `Lock ${input.to} in place of ${input.from}: ${input.reason}`,
      competence: competenceFor(item.device!.stops),
      after: [],
      carrier: null,
      limit: null,
      secondPerson: false,
    };
    const label = stepLabel(step);
    if (step.competence && !person.competences.includes(step.competence)) {
      return refused({ code: "not competent", step: label, needs: step.competence });
    }
    if (!samePlate(input.plate, step.plate!)) {
      return refused({ code: "wrong plate", seen: input.plate, expected: step.plate! });
    }
    const facts = isolationFacts(tx, row);
    // The key of the lock to be lifted is in the box that their locks hang on; on every point, their locks hang there.
    if (facts.peopleOn.length > 0) return refused({ code: "people on", people: facts.peopleOn });
    const notOurs = siteLockFault(facts.gear("lock", input.lock), input.lock, facts.nameOf);
    if (notOurs) return refused(notOurs);
    const where = facts.lockHangs(input.lock);
    if (where !== undefined) return refused({ code: "lock in use", lock: input.lock, where });

    const position = tx
      .select({ last: max(steps.position) })
      .from(steps)
      .where(eq(steps.isolationId, row.id))
      .get();
    const lifted: PlannedStep = {
      ...step,
      id: `s${randomUUID().slice(0, 8)}`,
      kind: "unlock",
      subject: input.from,
      plate: null,
      words: `Lock and tag off ${input.from}, which ${input.to} stands in for.`,
    };
    [step, lifted].forEach((one, i) =>
      tx
        .insert(steps)
        .values({
          isolationId: row.id,
          stepId: one.id,
          position: (position?.last ?? 0) + 1 + i,
          step: JSON.stringify(one),
          doneBy: person.id,
          doneAt: now_ms,
          recordedAt: now_ms,
          lock: one === step ? input.lock : null,
        })
        .run(),
    );
    const at = { by: person.id, at_ms: now_ms };
    hangLock(tx, { isolationId: row.id, tag: input.to, lock: input.lock, ...at });
    const itemId = tx.select({ id: items.id }).from(items).where(eq(items.tag, input.from)).get()!.id;
    tx.update(holds)
      .set({ liftedBy: person.id, liftedAt: now_ms })
      .where(and(eq(holds.isolationId, row.id), eq(holds.itemId, itemId), isNull(holds.liftedAt)))
      .run();
    for (const { id } of boxesOf(tx, [row.id])) {
      moveBox(tx, id, { ...at, type: "take key", lock: input.lock, point: input.to });
      for (const { lock } of loadBox(tx, { id })!.life.keys.filter((key) => key.point === input.from)) {
        moveBox(tx, id, { ...at, type: "give key back", lock });
      }
    }
    // On the way back the new point is lifted where the old one would have been.
    const back = life.steps.find((one) => one.kind === "unlock" && one.subject === input.from);
    if (back) {
      const { done: _, ...planned } = back;
      const changed: PlannedStep = {
        ...planned,
        subject: input.to,
        plate: step.plate,
        words: `Take lock and tag off ${input.to}, which stood in for ${input.from}, and put it back to its normal position.`,
        competence: step.competence,
      };
      tx.update(steps)
        .set({ step: JSON.stringify(changed) })
        .where(and(eq(steps.isolationId, row.id), eq(steps.stepId, back.id)))
        .run();
    }
    return {
      ok: true,
      subject: life.number,
      answer: { isolation: life.number, did: `${label}, unlock ${input.from}` },
    };
  },
});

function whyNot(fault: SwapFault): string {
  switch (fault.code) {
    case "unknown device":
      return `${fault.device} is no device of the register.`;
    case "not a barrier":
      return `${fault.device} may not be counted as a barrier.`;
    case "not as good":
      return `${fault.to} does not isolate as well as ${fault.from}.`;
    case "needed passing":
      return `Job ${fault.job} needs ${fault.device} passing.`;
    case "harm": {
      const [harm] = fault.harms;
      const who =
        harm && harm.people.length > 0
          ? `, where ${harm.people.join(", ")} ${harm.people.length === 1 ? "is" : "are"} on`
          : "";
      return `Without it ${harm?.source} has ${harm?.depth} barriers to ${harm?.face} of job ${harm?.job}${who}, and ${harm?.needs} are needed.`;
    }
  }
}
