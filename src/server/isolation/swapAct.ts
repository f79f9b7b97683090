import { z } from "zod";
import { numberText } from "../../core/gear/gearNumber";
import { decideSwap } from "../../core/isolation/swap";
import type { Refusal } from "../../core/refusal/refusal";
import { loadBox } from "../box/boxStore";
import { isolationFacts, loadIsolation, saveIsolation } from "./isolationStore";
import { boxesOf } from "../box/locks";
import { liveJobs } from "./liveJobs";
import { currentPlant } from "../plant/plantStore";
import { defineAct } from "../act/act";
import { moveBox } from "./isolationActs";

/** One point of a standing isolation for another, with the proof that nobody loses a barrier. */
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
    lock: numberText("write the number of the new lock").refine(
      (number) => number !== "",
      "write the number of the new lock",
    ),
    reason: z.string().trim().min(3, "write the reason").max(500),
  }),
  run: ({ tx, person, now_ms }, input) => {
    const stored = loadIsolation(tx, input.isolation);
    const plant = currentPlant(tx);
    const refused = (refusal: Refusal) => ({ ok: false, subject: input.isolation, refusal }) as const;
    if (stored === null || plant === null) {
      return refused({ code: "unknown", what: "isolation", name: input.isolation });
    }
    const { peopleOn, gear, lockHangs, nameOf } = isolationFacts(tx, stored.row);
    // Counted, not made up: later acts name them, and the ledger played again must come to the same.
    const taken = new Set(stored.life.steps.map(({ id }) => id));
    const newId = () => {
      for (let n = taken.size + 1; ; n++) {
        const id = `s${n}`;
        if (taken.has(id)) continue;
        taken.add(id);
        return id;
      }
    };
    const decided = decideSwap(
      stored.life,
      { ...input, by: person.id, at_ms: now_ms, competences: person.competences },
      { graph: plant.graph, live: liveJobs(tx), peopleOn, gear, lockHangs, nameOf, ids: [newId(), newId(), newId()] },
    );
    if (!decided.ok) return refused(decided.refusal);
    saveIsolation(tx, stored, decided.value, now_ms);
    const at = { by: person.id, at_ms: now_ms };
    for (const { id } of boxesOf(tx, [stored.row.id])) {
      const faults = [
        moveBox(tx, id, { ...at, type: "take key", lock: input.lock, point: input.to }),
        ...loadBox(tx, { id })!
          .life.keys.filter((key) => key.point === input.from)
          .map(({ lock }) => moveBox(tx, id, { ...at, type: "give key back", lock })),
      ];
      const fault = faults.find((one) => one !== null);
      if (fault) throw new Error(`box ${id} does not follow the swap of its isolation: ${fault.code}`);
    }
    const number = stored.life.number;
    return { ok: true, subject: number, answer: { isolation: number, did: `lock ${input.to}, unlock ${input.from}` } };
  },
});
